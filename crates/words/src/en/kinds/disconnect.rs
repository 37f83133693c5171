//! A pin disconnect.

use crate::en::step::{StepSays, plain, reported};
use derecho_job::work::kinds::disconnect::Step;

pub(super) fn step(step: Step) -> StepSays {
    match step {
        Step::Press => reported(
            plain("Press the steel sleeves out of the sway link eyes that get the pins"),
            Some(plain("Only at the ends that get the pins. Support the eye, not the rubber.")),
            "The stud goes where the sleeve was.",
            Some("Eye protection on. Keep hands clear of the press."),
        ),
        Step::Studs => reported(
            plain("Install both disconnect studs, nuts by hand"),
            Some(plain(
                "Pin holes where a hand gets to them. A nut that stops on the way is the wrong pitch.",
            )),
            "A wrong nut shows before anything is tight.",
            None,
        ),
        Step::StudsTight => reported(
            plain("Tighten the nuts of both disconnect studs"),
            None,
            "A stud that works loose takes the sway link with it.",
            None,
        ),
        Step::Stow => reported(
            plain("Install the stow studs and tighten them"),
            Some(plain("Where the sway link reaches them and stays clear of the tire at full lock.")),
            "A link that hangs loose hits the tire.",
            None,
        ),
        Step::Pins => reported(
            plain("On level ground, take both pins out and put them in again by hand"),
            Some(plain(
                "Both sides at the same height. If a pin binds, the sway links are unequal or the ground is not level.",
            )),
            "A pin you have to hammer here won't come out on the trail.",
            Some(
                "A twisted sway bar springs when a pin comes out: keep your hands and face out of the way of the link.",
            ),
        ),
        Step::Stowed => reported(
            plain("Stow both sway links and cycle the axle, full droop to full bump, both locks"),
            Some(plain(
                "The stowed links must stay clear of tires, brake lines and springs. Connect them again afterward.",
            )),
            "Stowed too close, a link tears a line.",
            Some("Jack stands under the frame, nobody underneath while it moves."),
        ),
    }
}
