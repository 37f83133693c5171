//! A step of the work as it is said, and the cautions that several steps share.

use derecho_core::measure::Phrase;
use derecho_core::measure::typed::mark;

/// A step in words.
pub(super) struct StepSays {
    pub(super) does: Phrase,
    pub(super) how: Option<Phrase>,
    pub(super) because: &'static str,
    pub(super) caution: Option<&'static str>,
}

pub(super) const STANDS: &str = "Jack stands under the frame, never a jack alone. Springs are under load, and the axle can shift or drop when the bar comes off.";
pub(super) const FINGERS: &str = "Engine off. Fingers out of bolt holes while anything moves. A ratchet strap under load can snap back: stand clear of its line.";
pub(super) const WELDING: &str = "Cover eyes, hands and skin. Keep heat off fuel and brake lines and bushings. Fire extinguisher within reach. Structural welding is for a qualified and, where the law says so, licensed welder.";
pub(super) const DRILLING: &str = "Eye protection on. Brace the drill: it can grab. Keep hands away from hot chips. Check that nothing is behind the far wall before you drill through.";
pub(super) const STEERING: &str =
    "Steering parts: follow the manufacturer's instructions only. Torque, pin and inspect.";
pub(super) const SWAY: &str = "A twisted sway bar is under load: level ground, both wheels at the same height before you undo a sway link.";

pub(super) fn plain(text: &str) -> Phrase {
    Phrase::plain(text)
}

pub(super) fn reported(
    does: Phrase,
    how: Option<Phrase>,
    because: &'static str,
    caution: Option<&'static str>,
) -> StepSays {
    StepSays { does, how, because, caution }
}

/// Said of a step in another function of its file.
pub(super) fn unsaid() -> StepSays {
    reported(Phrase::default(), None, "", None)
}

/// Sentences one after the other, each with its full stop.
pub(super) fn in_a_row(phrases: &[Phrase]) -> Phrase {
    Phrase::of(|w| {
        let stopped = |phrase: &Phrase| {
            let text = phrase.in_unit(w.unit()).trim();
            if text.ends_with(['.', '!', '?', ':']) { text.to_owned() } else { format!("{text}.") }
        };
        phrases.iter().map(stopped).collect::<Vec<_>>().join(" ")
    })
}

/// The hole as people call it.
pub(super) fn hole_name(name: &str) -> String {
    // A hole may be called by a bare word, such as high; one with its number is taken for nothing else.
    let is_hole = name.to_lowercase().contains("hole");
    match name {
        "" => "the old hole".to_owned(),
        _ if is_hole && name.ends_with(|c: char| c.is_ascii_digit()) => mark(name),
        _ if is_hole => format!("the \u{201c}{}\u{201d}", mark(name)),
        _ => format!("the \u{201c}{}\u{201d} hole", mark(name)),
    }
}
