//! The sway links.

use crate::en::sides;
use crate::en::step::{SWAY, StepSays, plain, reported};
use derecho_core::measure::{Length, Phrase, Side};
use derecho_job::bolt_up::message::StepContext;
use derecho_job::work::kinds::links::{ArmHolePlace, Links, Step};

/// The hole as a person finds it: by its number from the stiff end, with its arm.
fn hole(place: ArmHolePlace) -> Phrase {
    Phrase::of(|w| {
        format!(
            "hole {} of {}, counted from the stiff end, {} from the center of the sway bar",
            place.number,
            place.of,
            w.fine(place.arm)
        )
    })
}

fn set(links: Option<&Links>) -> StepSays {
    let length = links.and_then(|links| links.length);
    if links.and_then(Links::unequal).is_some() {
        return reported(
            match links.and_then(|links| Some((links.length?, links.left_longer / 2.0))) {
                Some((link, half)) => Phrase::of(|w| {
                    let (left, right) = (w.fine(link + half), w.fine(link - half));
                    format!("Set the left sway link to {left} and the right sway link to {right}, eye to eye")
                }),
                None => plain("Set both sway links"),
            },
            Some(plain(
                "Unequal on purpose. At each sway link, same amount of right- and left-hand thread engaged.",
            )),
            "The difference between them sets the preload.",
            Some(SWAY),
        );
    }
    reported(
        match length {
            Some(link) => Phrase::of(|w| format!("Set both sway links to {}, eye to eye", w.fine(link))),
            None => plain("Set both sway links to the same length"),
        },
        Some(plain(
            "Side by side, a bolt through both eyes; same amount of right- and left-hand thread engaged.",
        )),
        "Unequal sway links twist the sway bar at rest.",
        Some(SWAY),
    )
}

/// Links with no thread are told by their length: it is how one picks them.
fn by_hand(links: Option<&Links>) -> Phrase {
    let length = links.filter(|links| links.fixed).and_then(|links| links.length);
    let place = links.and_then(|links| links.hole);
    Phrase::of(|w| {
        let length = length.map_or_else(String::new, |link| format!(", {} eye to eye", w.fine(link)));
        let place = place.map_or_else(String::new, |place| format!(", in {}", hole(place).in_unit(w.unit())));
        format!("Install both sway links by hand{length}{place}")
    })
}

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    let links = context.situation.links();
    let unequal = links.and_then(Links::unequal);
    let pinned = links.is_some_and(|links| links.pinned);
    match step {
        Step::Off => reported(
            plain("Remove both old sway links, if there are any"),
            Some(plain("Both sides at the same height; undo one end of each before you take either off.")),
            "With one side still on, the sway bar can spring.",
            Some(SWAY),
        ),
        Step::Set => set(links),
        Step::ByHand => reported(
            by_hand(links),
            Some(plain("Put the bolts in from the side they can come back out of.")),
            "Get both sides on before you tighten either.",
            Some(SWAY),
        ),
        Step::Tight => reported(
            plain(if pinned {
                "Tighten the sway link bolts at the sway bar arms, both sides"
            } else {
                "Tighten the sway link bolts, both ends, both sides"
            }),
            Some(plain("Level ground, weight on the wheels: the bushings then rest where it is driven.")),
            "Tightened with the axle hanging, the bushings stay twisted.",
            None,
        ),
        Step::Read => read(context, links, unequal),
        Step::Jam => reported(
            plain("Tighten the sway link jam nuts"),
            None,
            if unequal.is_some() {
                "Last, once both sway links are at their planned lengths."
            } else {
                "Last, once both sway bar arms are at the same angle."
            },
            None,
        ),
    }
}

/// Both links or arms looked at.
fn read(context: &StepContext, links: Option<&Links>, unequal: Option<Length>) -> StepSays {
    match unequal {
        Some(longer) => reported(
            Phrase::of(|w| {
                let side = sides::whose(Side::of(longer.to_mm()), context.driver);
                format!("Measure both sway links: {side} one {} longer, as planned", w.fine(longer.abs()))
            }),
            None,
            "They are unequal on purpose: the sway bar arms are not at the same angle.",
            None,
        ),
        None => reported(
            plain("Check both sway bar arms: same angle left and right"),
            None,
            if links.is_some_and(|links| links.fixed) {
                "A sway link of the wrong length shows up here."
            } else {
                "A sway link one turn too long shows up here."
            },
            None,
        ),
    }
}
