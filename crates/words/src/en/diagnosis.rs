//! The search for a cause.

use derecho_core::measure::phrase::Words;
use derecho_core::measure::typed::mark;
use derecho_core::measure::{Length, Phrase, Side};
use derecho_job::diagnosis::FigureKind;
use derecho_job::diagnosis::message::DiagnosisMessage;
use derecho_job::document::diagnosis::{FoundCause, QuickCheck, Suspect};
use derecho_job::document::{ComplaintAbout, Method};

use super::bracket::capital;

pub(super) fn diagnosis(message: &DiagnosisMessage) -> Phrase {
    let plain = Phrase::plain;
    match message {
        DiagnosisMessage::Likeliest { suspect, share, told, rival } => {
            plain(&likeliest(*suspect, *share, *told, *rival))
        }
        DiagnosisMessage::NothingPoints { explained } => plain(nothing_points(*explained)),
        DiagnosisMessage::Confirmed(suspect) => {
            plain(&format!("Found: {}. Fix it, then mark it fixed.", name(*suspect)))
        }
        DiagnosisMessage::Mended(suspect) => {
            plain(&format!("Found and fixed: {}. Measure again and drive it.", name(*suspect)))
        }
        DiagnosisMessage::Suspected { suspect, size } => suspected(*suspect, *size),
        DiagnosisMessage::Because(suspect) => plain(because(*suspect)),
        DiagnosisMessage::Mend(suspect) => plain(mend(*suspect)),
        DiagnosisMessage::Asks(check) => plain(asks(*check)),
        DiagnosisMessage::Mind(check) => plain(mind(*check)),
        DiagnosisMessage::Outcome { seen, likeliest, share } => plain(&outcome(*seen, *likeliest, *share)),
        DiagnosisMessage::Seen { check, seen } => {
            plain(&format!("{} {}", asks(*check), if *seen { "Yes." } else { "No." }))
        }
        DiagnosisMessage::StillThere(check) => plain(still_there(*check)),
        DiagnosisMessage::Figure(kind) => plain(figure(*kind)),
        DiagnosisMessage::Record(cause) => plain(&record(cause)),
        DiagnosisMessage::Amount { kind, value } => amount(*kind, *value),
        DiagnosisMessage::CauseOpen { suspect, note } => {
            let seen = if note.trim().is_empty() {
                String::new()
            } else {
                format!(" Seen: {}.", mark(note.trim().trim_end_matches('.')))
            };
            plain(&format!("{} was found and is not fixed.{seen}", capital(name(*suspect))))
        }
    }
}

fn record(cause: &FoundCause) -> String {
    let noted = |lead: &str, note: &str| match note.trim().trim_end_matches('.') {
        "" => String::new(),
        note => format!(" {lead}: {}.", mark(note)),
    };
    let fixed = match &cause.mended {
        None => " Not fixed.".to_owned(),
        Some(_) if cause.mended_note.trim().is_empty() => " Fixed.".to_owned(),
        Some(_) => noted("Fixed", &cause.mended_note),
    };
    format!("Cause found: {}.{}{fixed}", name(cause.what), noted("Seen", &cause.note))
}

fn percent(share: f64) -> String {
    match share {
        share if share > 0.99 => "over 99 %".to_owned(),
        share if share < 0.01 => "under 1 %".to_owned(),
        share => format!("{:.0} %", share * 100.0),
    }
}

fn likeliest(suspect: Suspect, share: f64, told: bool, rival: Option<Suspect>) -> String {
    match rival {
        _ if told => {
            format!("Most likely: {} ({}). Make sure before you fix it.", name(suspect), percent(share))
        }
        Some(rival) => {
            format!("Too close to call: {} ({}), or {}.", name(suspect), percent(share), name(rival))
        }
        None => format!("Not sure yet. Most likely so far: {} ({}).", name(suspect), percent(share)),
    }
}

/// Nothing wrong is likeliest; what is known may explain the complaint by itself.
const fn nothing_points(explained: Option<ComplaintAbout>) -> &'static str {
    match explained {
        Some(ComplaintAbout::SideStepping) => {
            "The bar's angle explains it: bring the bar nearer to level first. Nothing else points to a fault."
        }
        Some(ComplaintAbout::OffCentre) => {
            "The axle is off center, which explains it: center it first. Nothing else points to a fault."
        }
        _ => "Nothing so far points to a fault. Look at what is below to be sure.",
    }
}

fn outcome(seen: bool, likeliest: Option<Suspect>, share: f64) -> String {
    let answer = if seen { "Yes" } else { "No" };
    match likeliest {
        Some(suspect) => format!("{answer}: {}, {}.", name(suspect), percent(share)),
        None => format!("{answer}: maybe nothing wrong, {}.", percent(share)),
    }
}

/// A suspect in a sentence.
pub(super) const fn name(suspect: Suspect) -> &'static str {
    match suspect {
        Suspect::FullDifference => "the bar was set by the full difference, not half",
        Suspect::SignTurned => "the bar was turned the wrong way",
        Suspect::MeasuredHanging => "measured with the axle hanging",
        Suspect::NotBounced => "measured before it was bounced",
        Suspect::LeanedOn => "someone leaned on it",
        Suspect::AnotherHeight => "measured at another height",
        Suspect::TiresUnlike => "tires or pressures don't match",
        Suspect::WheelsTurned => "measured with the wheels turned",
        Suspect::SlopingFloor => "the floor slopes",
        Suspect::ReferenceCrooked => "what was measured from is out of place",
        Suspect::FrameBracketSideways => "frame bracket is off to one side",
        Suspect::FrameBracketHeight => "frame bracket is too high or too low",
        Suspect::AxleBracketSideways => "axle bracket is off to one side",
        Suspect::AxleBracketHeight => "axle bracket is too high or too low",
        Suspect::OtherHole => "the bolt is in another hole than recorded",
        Suspect::LengthOff => "the bar isn't the length on record",
        Suspect::BarBent => "the track bar is bent",
        Suspect::BoltLoose => "a track bar bolt is loose in its hole",
        Suspect::BushingTorn => "a track bar bushing is torn",
        Suspect::BracketTearing => "a track bar bracket is cracked",
        Suspect::ArmsUnlike => "control arms don't match left and right",
        Suspect::HousingBent => "the axle housing is bent",
        Suspect::FrameOutOfSquare => "the frame is out of square",
        Suspect::SwayLinksUnlike => "sway links aren't the same length",
        Suspect::ArmOnOtherSpline => "one sway arm is on another spline",
        Suspect::ArmOverCenter => "a sway link goes over center",
        Suspect::DragLinkNotParallel => "the drag link isn't parallel to the track bar",
        Suspect::TrackBarHits => "the track bar hits something",
        Suspect::ShocksTired => "the shocks are worn out",
        Suspect::SpringsUnlike => "the springs don't match left and right",
        Suspect::LoadToOneSide => "the load is to one side",
    }
}

fn suspected(suspect: Suspect, size: Option<(Length, Length)>) -> Phrase {
    let Some((size, good_to)) = size else { return Phrase::plain(&capital(name(suspect))) };
    Phrase::of(|w| {
        let by = format!("{} ± {}", w.distance(size.abs()), w.distance(good_to));
        capital(&sized(w, suspect, size, &by))
    })
}

fn sized(_: Words, suspect: Suspect, size: Length, by: &str) -> String {
    let side = if Side::of(size.to_mm()) == Side::Left { "left" } else { "right" };
    let way = if size > Length::ZERO { "high" } else { "low" };
    match suspect {
        Suspect::FrameBracketSideways => format!("frame bracket {by} too far to the {side}"),
        Suspect::AxleBracketSideways => format!("axle bracket {by} too far to the {side}"),
        Suspect::FrameBracketHeight => format!("frame bracket {by} too {way}"),
        Suspect::AxleBracketHeight => format!("axle bracket {by} too {way}"),
        Suspect::LengthOff => {
            format!(
                "the bar is {by} {} than recorded",
                if size > Length::ZERO { "longer" } else { "shorter" }
            )
        }
        Suspect::BarBent => format!("the track bar is bent: {by} shorter"),
        Suspect::MeasuredHanging => format!("measured with the axle hanging, {by} down"),
        Suspect::AnotherHeight => {
            format!("measured {by} {}", if size > Length::ZERO { "higher" } else { "lower" })
        }
        Suspect::ArmsUnlike => format!("control arms don't match: wheelbase differs by {by}"),
        Suspect::FrameOutOfSquare => format!("the frame is out of square: wheelbase differs by {by}"),
        Suspect::SwayLinksUnlike => format!("sway links differ by {by}"),
        Suspect::SpringsUnlike | Suspect::LoadToOneSide => {
            let high = if size > Length::ZERO { "left" } else { "right" };
            format!("{}: the {high} corner is {by} lower", name(suspect))
        }
        _ => format!("{}: {by} to the {side}", name(suspect)),
    }
}

const fn because(suspect: Suspect) -> &'static str {
    match suspect {
        Suspect::FullDifference => "The axle then goes twice as far as it should, past the middle.",
        Suspect::SignTurned => "The axle then goes as far the other way and ends up twice as far off.",
        Suspect::MeasuredHanging => "The bar swings as the axle drops, and carries it sideways.",
        Suspect::NotBounced => "Bushings hold the axle over until the vehicle is bounced.",
        Suspect::LeanedOn => "A push on a fender moves the body over the axle.",
        Suspect::AnotherHeight => "At another height the bar holds the axle at another place.",
        Suspect::TiresUnlike => "Unequal pressures lean the body and move the sidewalls.",
        Suspect::WheelsTurned => "Turned wheels move the sidewalls out on one side and in on the other.",
        Suspect::SlopingFloor => "A plumb line hangs true while the vehicle leans with the floor.",
        Suspect::ReferenceCrooked => "One point says another offset than the others, and always by the same.",
        Suspect::FrameBracketSideways => "The axle follows the frame eye: it is off by what the bracket is.",
        Suspect::AxleBracketSideways => "The axle is off the other way by what its bracket is.",
        Suspect::FrameBracketHeight | Suspect::AxleBracketHeight => {
            "The bar then has another angle, and reaches less or more across."
        }
        Suspect::OtherHole => "Another hole gives the bar another angle and another reach.",
        Suspect::LengthOff => "The axle moves by what was really turned, not by what was written down.",
        Suspect::BarBent => "A bent bar is shorter between its eyes and pulls the axle over.",
        Suspect::BoltLoose => "The axle rests at either end of the play: no two measurements agree.",
        Suspect::BushingTorn => "The rubber gives under load and the axle wanders.",
        Suspect::BracketTearing => "The bracket moves under load; it gets worse until it tears off.",
        Suspect::ArmsUnlike => "One end of the axle is further back, and it steers.",
        Suspect::HousingBent => "The wheels lean or toe differently and the vehicle pulls.",
        Suspect::FrameOutOfSquare => {
            "Both frame points are not across from each other, so the axle reads out of square."
        }
        Suspect::SwayLinksUnlike => "The bar is twisted as it stands and leans the body.",
        Suspect::ArmOnOtherSpline => "One arm is preloaded, so the body leans and the links look right.",
        Suspect::ArmOverCenter => "The sway bar arm flips over at droop and stays there, or snaps back.",
        Suspect::DragLinkNotParallel => "The two move on different arcs, so bumps steer the wheels.",
        Suspect::TrackBarHits => "The travel ends with a knock where the track bar hits.",
        Suspect::ShocksTired => "Nothing stops the bouncing after a bump.",
        Suspect::SpringsUnlike => "One corner is lower, and it leans even when empty.",
        Suspect::LoadToOneSide => "One corner carries more and is lower.",
    }
}

const fn mend(suspect: Suspect) -> &'static str {
    match suspect {
        Suspect::FullDifference | Suspect::SignTurned | Suspect::LengthOff => {
            "Measure the bar eye to eye, record that length, and set it again from the Bar screen."
        }
        Suspect::MeasuredHanging | Suspect::AnotherHeight => {
            "Lower it onto its wheels at the height it is driven at, bounce it, and measure again."
        }
        Suspect::NotBounced | Suspect::LeanedOn => "Bounce it, keep hands off, and measure again.",
        Suspect::TiresUnlike => "Set all pressures, swap tires that differ, bounce it, and measure again.",
        Suspect::WheelsTurned => "Put the wheels straight ahead and measure again.",
        Suspect::SlopingFloor => "Move to a level floor, or measure from the frame to the hubs.",
        Suspect::ReferenceCrooked => "Measure from the frame to the hubs and go by that.",
        Suspect::FrameBracketSideways
        | Suspect::FrameBracketHeight
        | Suspect::AxleBracketSideways
        | Suspect::AxleBracketHeight => {
            "Measure the eye and record its real place above, then set the bar for it, or move the bracket."
        }
        Suspect::OtherHole => "Move the bolt to the planned hole, or record the hole it is in.",
        Suspect::BarBent => "Replace the bar. Don't straighten it.",
        Suspect::BoltLoose => {
            "Fit a full-size bolt; sleeve or plate an oval hole. Look at the bracket's welds too. Tighten it at ride height to the manufacturer's torque."
        }
        Suspect::BushingTorn => "Replace the bushing and tighten its bolt at ride height.",
        Suspect::BracketTearing => {
            "Don't drive it. Have the bracket and its welds repaired by a certified welder."
        }
        Suspect::ArmsUnlike => {
            "Set both control arms to one length and the same holes, then check square again."
        }
        Suspect::HousingBent => {
            "Have the housing measured and straightened or replaced by a shop that does it."
        }
        Suspect::FrameOutOfSquare => "Have the frame measured on a bench before anything is set by it.",
        Suspect::SwayLinksUnlike => "Set both sway links to one length on level ground.",
        Suspect::ArmOnOtherSpline => "Pull one arm and put it on the same spline as the other.",
        Suspect::ArmOverCenter => "Size the links again on the Sway screen, or limit the droop.",
        Suspect::DragLinkNotParallel => {
            "See the Cycle screen for how far the two lean apart and what brings them parallel."
        }
        Suspect::TrackBarHits => "See the Cycle screen: make room, or limit the travel there.",
        Suspect::ShocksTired => "Replace the shocks in pairs.",
        Suspect::SpringsUnlike => "Fit springs that match, and check both corners' heights.",
        Suspect::LoadToOneSide => "Shift the load, then measure the heights again.",
    }
}

const fn asks(check: QuickCheck) -> &'static str {
    match check {
        QuickCheck::BoltMoves => "Rock the body from side to side. Does a track bar bolt move in its hole?",
        QuickCheck::BushingMoves => "Rock the body. Is a track bar bushing torn, or does it give a lot?",
        QuickCheck::BracketMoves => "Rock the body. Does a bracket move, or is its paint or weld cracked?",
        QuickCheck::RubbedPaint => "Is paint rubbed bright on the track bar or beside it?",
        QuickCheck::BarNotStraight => "Hold a straightedge along the bar. Is it bent?",
        QuickCheck::BarLengthDiffers => "Measure the bar eye to eye. Is it a different length than recorded?",
        QuickCheck::TurnsDiffer => "Ask who turned it. Was it the other way, or by the full difference?",
        QuickCheck::FrameEyeElsewhere => "Measure the frame eye's place. Is it off from the plan?",
        QuickCheck::AxleEyeElsewhere => "Measure the axle eye's place. Is it off from the plan?",
        QuickCheck::HoleDiffers => "Look at the holes. Is a bolt in another hole than recorded?",
        QuickCheck::BouncedDiffers => "Bounce it, hands off, and measure again. Is it different?",
        QuickCheck::StoodOtherwise => "When it was measured, was it hanging or in another height setting?",
        QuickCheck::PressuresDiffer => "Check the tires. Do pressures or sizes differ?",
        QuickCheck::WheelsNotStraight => "Were the wheels turned when it was measured?",
        QuickCheck::FloorSlopes => "Put a level across the floor at the axle. Does it slope?",
        QuickCheck::OtherPointDiffers => "Measure from another point. Does it say a different offset?",
        QuickCheck::DiagonalsDiffer => "Measure the frame's two diagonals. Do they differ?",
        QuickCheck::ArmsDiffer => "Measure both control arms and their holes. Do left and right differ?",
        QuickCheck::HousingNotStraight => "Check the housing with a straightedge. Is it bent?",
        QuickCheck::LinksDiffer => "Measure both sway links eye to eye. Do they differ?",
        QuickCheck::SplineMarksDiffer => {
            "Look at the marks on both sway arms. Are they on different splines?"
        }
        QuickCheck::LinkInLine => "At full droop, is a sway link nearly in line with its arm?",
        QuickCheck::LeansUnlike => "Look from the front. Do the drag link and track bar lean differently?",
        QuickCheck::KeepsSwinging => "Push a corner down and let go. Does it bounce more than once?",
        QuickCheck::SpringsDiffer => "Compare the springs, unloaded. Do height or part number differ?",
        QuickCheck::LoadOneSided => "Look at the load. Is it mostly on one side?",
    }
}

fn amount(kind: FigureKind, value: f64) -> Phrase {
    let sign = if value < 0.0 { "−" } else { "+" };
    match kind {
        FigureKind::Offset { .. } => Phrase::of(|w| w.sideways(Length::from_mm(value))),
        FigureKind::BarAngle => Phrase::plain(&format!("{sign}{:.1}°", value.abs())),
        FigureKind::CornerWeights => Phrase::plain(&format!("{sign}{:.1} %", value.abs())),
        FigureKind::Stance { .. }
        | FigureKind::Lean { .. }
        | FigureKind::Square { .. }
        | FigureKind::Links => Phrase::of(|w| format!("{sign}{}", w.distance(Length::from_mm(value.abs())))),
    }
}

/// What was seen and is still there.
const fn still_there(check: QuickCheck) -> &'static str {
    match check {
        QuickCheck::BoltMoves => "A track bar bolt moves in its hole.",
        QuickCheck::BushingMoves => "A track bar bushing is torn or gives a lot.",
        QuickCheck::BracketMoves => "A track bar bracket moves or is cracked.",
        QuickCheck::RubbedPaint => "Paint is rubbed bright on the track bar or beside it.",
        QuickCheck::BarNotStraight => "The track bar is bent.",
        QuickCheck::PressuresDiffer => "Tire pressures or sizes differ.",
        QuickCheck::DiagonalsDiffer => "The frame's diagonals differ.",
        QuickCheck::ArmsDiffer => "Control arms differ left and right.",
        QuickCheck::HousingNotStraight => "The axle housing is bent.",
        QuickCheck::LinksDiffer => "The sway links differ in length.",
        QuickCheck::SplineMarksDiffer => "The sway arms are on different splines.",
        QuickCheck::LinkInLine => "A sway link is nearly in line with its arm at full droop.",
        QuickCheck::LeansUnlike => "The drag link and track bar lean differently.",
        QuickCheck::KeepsSwinging => "A corner bounces more than once when you let go.",
        QuickCheck::SpringsDiffer => "The springs differ left and right.",
        QuickCheck::LoadOneSided => "The load is mostly on one side.",
        _ => "Something was measured or recorded wrong.",
    }
}

const fn mind(check: QuickCheck) -> &'static str {
    match check {
        QuickCheck::BoltMoves | QuickCheck::BushingMoves | QuickCheck::BracketMoves => {
            "On its wheels, chocked, engine off. Watch it; keep fingers out of the bracket while someone rocks it."
        }
        QuickCheck::ArmsDiffer | QuickCheck::HousingNotStraight | QuickCheck::DiagonalsDiffer => {
            "Chock the wheels. Never go under a vehicle that only a jack holds."
        }
        QuickCheck::LinkInLine | QuickCheck::SpringsDiffer => {
            "Frame on stands, wheels chocked. Keep clear of the arms and springs as the axle drops."
        }
        QuickCheck::FrameEyeElsewhere
        | QuickCheck::AxleEyeElsewhere
        | QuickCheck::BarLengthDiffers
        | QuickCheck::BarNotStraight
        | QuickCheck::HoleDiffers
        | QuickCheck::RubbedPaint
        | QuickCheck::LinksDiffer
        | QuickCheck::SplineMarksDiffer => "On its wheels, chocked, engine off.",
        QuickCheck::KeepsSwinging
        | QuickCheck::LeansUnlike
        | QuickCheck::BouncedDiffers
        | QuickCheck::OtherPointDiffers => "On its wheels on level ground, chocked.",
        QuickCheck::TurnsDiffer
        | QuickCheck::StoodOtherwise
        | QuickCheck::PressuresDiffer
        | QuickCheck::WheelsNotStraight
        | QuickCheck::FloorSlopes
        | QuickCheck::LoadOneSided => "",
    }
}

const fn figure(kind: FigureKind) -> &'static str {
    match kind {
        FigureKind::Offset { method, .. } => match method {
            Method::FrameToHub => "Movement, frame to hub",
            Method::FrameToSidewall => "Movement, frame to sidewall",
            Method::BodyToSidewall => "Movement, body to sidewall",
            Method::Own => "Movement, own points",
        },
        FigureKind::Stance { .. } => "Frame height over the hubs",
        FigureKind::Lean { .. } => "Right corner higher than left",
        FigureKind::Square { .. } => "Wheelbase, left less right",
        FigureKind::BarAngle => "Bar angle",
        FigureKind::Links => "Sway links, left less right",
        FigureKind::CornerWeights => "Corner weights, left less right",
    }
}
