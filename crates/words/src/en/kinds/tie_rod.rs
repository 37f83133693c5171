//! The tie rod to the other side of the steering arms.

use crate::en::step::{STANDS, STEERING, StepSays, plain, reported};
use derecho_core::measure::{Length, Phrase};
use derecho_core::pose::mechanism::WANTED_CLEARANCE;
use derecho_job::bolt_up::message::StepContext;
use derecho_job::document::hardpoints::{TieRodSeats, TieRodTo};
use derecho_job::work::kinds::tie_rod::Step;

const SEATS: &str = "Steering arms hold the wheels: only where the knuckle's manufacturer allows it, done and inspected by someone qualified.";

pub(super) fn step(context: &StepContext, step: Step) -> StepSays {
    let Some(tie_rod) = context.situation.tie_rod() else { return crate::en::step::unsaid() };
    let over = tie_rod.to == TieRodTo::Over;
    match step {
        Step::Off => reported(
            plain("Remove the cotter pins and nuts and separate both tie rod ends"),
            Some(plain(
                "First measure the tie rod stud to stud and write it down: toe is set from there. Use a ball joint separator, the nut left on by two turns until it pops.",
            )),
            "A fork or a hammer ruins the boots and the threads.",
            Some(STEERING),
        ),
        Step::Seats => seats(tie_rod.seats, over),
        Step::On => reported(
            plain(&format!(
                "Install the tie rod {} the steering arms, nuts by hand",
                if over { "over" } else { "under" }
            )),
            Some(on(over, tie_rod.by)),
            "A stud that does not seat works loose.",
            Some(STEERING),
        ),
        Step::Clear => reported(
            plain("Check what the tie rod clears: full lock both ways, at full bump and at full droop"),
            Some(Phrase::of(|w| {
                format!(
                    "Jack the axle up to its bump stops, springs out if they keep it from getting there; engine off, a helper at the wheel. Track bar and its axle bracket, drag link, springs and spring plates, sway bar links, differential cover: {} or more everywhere.",
                    w.distance(WANTED_CLEARANCE)
                )
            })),
            "A tie rod that hits anything locks the steering.",
            Some(STANDS),
        ),
        Step::Tight | Step::Pin | Step::Toe | Step::Clamps => drawn_up(step),
    }
}

fn drawn_up(step: Step) -> StepSays {
    match step {
        Step::Tight => reported(
            plain("Tighten the tie rod end nuts"),
            None,
            "A ball stud spins in its taper until it seats.",
            Some(STEERING),
        ),
        Step::Pin => reported(
            plain("Cotter pins through the tie rod end nuts"),
            Some(plain("Tighten to the next slot, never back off.")),
            "Back off to a slot and you lose the torque.",
            Some(STEERING),
        ),
        Step::Toe => reported(
            plain("Set toe with the tie rod"),
            Some(plain(
                "Wheels straight, clamps loose. Start from the stud to stud length you wrote down; measure between the tires at axle height, front and back, and set the difference on the manufacturer's sheet. Equal thread engaged at both ends.",
            )),
            "The other side of the arms changes the tie rod's reach.",
            Some(STEERING),
        ),
        Step::Clamps => reported(
            plain("Tighten the clamps or jam nuts of the tie rod"),
            Some(plain(
                "Both ball studs centered in their travel, clamp bolts clear of everything at full lock.",
            )),
            "A tie rod that turns by itself changes toe.",
            Some(STEERING),
        ),
        _ => crate::en::step::unsaid(),
    }
}

fn seats(seats: TieRodSeats, over: bool) -> StepSays {
    let from = if over { "top" } else { "bottom" };
    if seats == TieRodSeats::Inserts {
        return reported(
            plain(&format!(
                "Drill both steering arms straight through and press in the inserts from the {from}"
            )),
            Some(plain(
                "First hold the rod where it will be: clear at full bump and full lock. Square to the arm, to the size on the inserts' sheet. The taper is wide on the side the tie rod sits.",
            )),
            "A crooked insert tips the stud.",
            Some(SEATS),
        );
    }
    reported(
        plain(&format!("Ream both steering arms from the {from} for the tie rod ends")),
        Some(plain(
            "First hold the rod where it will be: clear at full bump and full lock. With the reamer of the stud's own taper, a little at a time, trying the stud: it seats along its whole taper and the slots of the nut come to the pin hole. The old taper must be cleaned out all the way: if it is not, use inserts.",
        )),
        "A stud that sits on half a taper breaks.",
        Some(SEATS),
    )
}

fn on(over: bool, by: Option<Length>) -> Phrase {
    Phrase::of(|w| {
        let studs = if over { "Studs down" } else { "Studs up" };
        let higher = if over { "higher" } else { "lower" };
        let by = by
            .map_or_else(String::new, |by| format!(" The rod sits {} {higher} than it did.", w.distance(by)));
        format!("{studs}, tapers clean and dry; seat them before you run the nuts up.{by}")
    })
}
