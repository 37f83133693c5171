//! Lengths, preload and disconnects, checked.

use crate::document::sway::{PinForm, SwayKind};
use crate::document::{Job, length_of};
use crate::sway::links::SwayLinks;
use crate::sway::places::Places;
use crate::sway::stow::StowResult;
use crate::sway::vehicle::Base;
use crate::usual;
use crate::verdict::{FitCheck, FitVerdict};
use derecho_core::measure::load::{GRAVITY, force, weight};
use derecho_core::measure::{AngleEntry, Length, Phrase, WeightEntry};
use derecho_core::sway::BarRate;
use derecho_core::sway::splined::{OVER_FRAME, least_length, mass};

/// Splined bar, mass, arms against stroke, preload, in words.
pub(crate) fn fit_says(job: &Job, links: &SwayLinks, base: &Base, rate: &BarRate, bar: f64) -> Vec<Phrase> {
    let mut says = Vec::new();
    if job.sway.kind == Some(SwayKind::Splined)
        && let Some(frame) = length_of(&job.rig.frame_width)
    {
        says.push(Phrase::of(|w| {
            format!(
                "A splined bar of at least {}: the frame's {} and {} over, {} sticking out each side.",
                w.distance(least_length(frame)),
                w.distance(frame),
                w.distance(OVER_FRAME),
                w.distance(OVER_FRAME / 2.0)
            )
        }));
    }
    if job.sway.diameter.is_some() && job.sway.active_length.is_some() {
        // The arms of a one-piece bar are of the same stock.
        let arms = rate.bending_arm.map_or(Length::ZERO, |arm| arm * 2.0);
        let kilograms = mass(rate.outside, rate.bore, rate.active + arms);
        says.push(Phrase::of(|w| format!("The bar weighs {}.", weight(w, kilograms * GRAVITY))));
    }
    if let Some(stroke) = length_of(&job.sway.shock_stroke) {
        says.push(Phrase::of(|w| {
            let verdict = if (links.arm_mm - stroke).abs() <= stroke * 0.15 {
                "about right"
            } else {
                "look at the window above"
            };
            format!(
                "Arms of {} against {} of shock stroke: the rule of thumb takes them alike; {verdict}.",
                w.distance(links.arm_mm),
                w.distance(stroke)
            )
        }));
    }
    preload(job, base, rate, bar, &mut says);
    says
}

fn preload(job: &Job, base: &Base, rate: &BarRate, bar: f64, says: &mut Vec<Phrase>) {
    let longer = length_of(&job.sway.left_longer).unwrap_or(Length::ZERO);
    let wanted = job.sway.preload_wanted;
    if longer != Length::ZERO {
        let change = base.preload(rate, longer, bar).abs();
        let form = &job.vehicle;
        let corners = form
            .left_corner
            .as_ref()
            .map(WeightEntry::newtons)
            .zip(form.right_corner.as_ref().map(WeightEntry::newtons));
        says.push(Phrase::of(|w| {
            let (side, other) = if longer > Length::ZERO { ("left", "right") } else { ("right", "left") };
            let corners = corners.map_or_else(String::new, |(left, right)| {
                let sign = if longer > Length::ZERO { 1.0 } else { -1.0 };
                format!(
                    " Without it the scales would show {} left and {} right; with it {} and {}.",
                    weight(w, left - sign * change),
                    weight(w, right + sign * change),
                    weight(w, left),
                    weight(w, right)
                )
            });
            let wanted = if wanted {
                "on purpose".to_owned()
            } else {
                "by accident? Set both links alike on a level floor".to_owned()
            };
            format!(
                "The {side} link is {} longer: {} of preload at each wheel, more under this axle's {side} and the other axle's {other} wheel, {wanted}.{corners}",
                w.distance(longer),
                weight(w, change),
            )
        }));
    } else if wanted {
        says.push(Phrase::plain(
            "Preload is wanted, but both links are alike: type how much longer the left one is.",
        ));
    }
    let slope = job.rig.floor_slope.as_ref().map_or(0.0, |slope| slope.angle().to_degrees());
    if slope.abs() > usual::LEVEL_DEGREES {
        says.push(Phrase::plain(&format!(
            "The floor leans by {:.1}°: links set here by what slips in come out unequal and twist the bar on level ground. Set both to one length by the tape, or level the tyres first.",
            slope.abs()
        )));
    }
}

fn check(name: &str, good: bool, says: Phrase) -> FitCheck {
    let verdict = if good { FitVerdict::Good } else { FitVerdict::Bad };
    FitCheck { name: name.to_owned(), verdict, says }
}

/// Pins, stowing, parking on a slope.
pub(crate) fn disconnects(
    job: &Job,
    places: &Places,
    (base, rate): (&Base, &BarRate),
    stowed: Option<&StowResult>,
) -> Vec<FitCheck> {
    let pins = &job.sway.pins;
    let mut checks = parts(pins);
    if let Some(stowed) = stowed {
        checks.push(check("stowed link, worked out", stowed.clear, stowed.says.clone()));
    }
    let off = |difference: Length| {
        let pull = rate.effective() * difference.abs().to_mm() / rate.arm.to_mm().powi(2);
        (pull, difference.abs() <= usual::PIN_CHAMFER || pull <= usual::HAND)
    };
    if let Some(difference) = length_of(&pins.parked_difference) {
        let (pull, goes_in) = off(difference);
        let says = Phrase::of(|w| {
            if difference.abs() <= usual::PIN_CHAMFER {
                "Both sides stand alike.".to_owned()
            } else if goes_in {
                format!(
                    "The sides differ by {}: a hand pulls that, {}.",
                    w.distance(difference),
                    force(w, pull)
                )
            } else {
                format!(
                    "The sides differ by {}, which takes {} at the link: park level, or let a helper stand on the bumper.",
                    w.distance(difference),
                    force(w, pull)
                )
            }
        });
        checks.push(check("pins go in as it is parked", goes_in, says));
    }
    if let Some(slope) = pins.parked_slope.as_ref().map(AngleEntry::angle)
        && let Some(lean) = base.lean_on_slope(slope.to_radians())
    {
        // Eye to eye across the vehicle the two sides differ by the lean over their spacing.
        let spacing = Length::from_mm(2.0 * places.far.y.abs());
        let difference = spacing * lean.abs();
        let (pull, goes_in) = off(difference);
        let hand = Length::from_mm(usual::HAND * rate.arm.to_mm().powi(2) / rate.effective()).to_mm();
        let allowed =
            hand.max(usual::PIN_CHAMFER.to_mm()) / (difference.to_mm() / slope.abs().to_degrees()).max(1e-9);
        let says = Phrase::of(|w| {
            let told = format!(
                "On {:.1}° sideways the body leans {:.1}° on its springs and the sides differ by {}, {} at the link",
                slope.to_degrees().abs(),
                lean.to_degrees().abs(),
                w.distance(difference),
                force(w, pull)
            );
            if goes_in {
                format!("{told}: a hand pulls that.")
            } else {
                format!(
                    "{told}: pins go in up to {allowed:.1}°. Find level ground, or a helper for the bumper."
                )
            }
        });
        checks.push(check("pins go in on this slope", goes_in, says));
    }
    checks
}

fn parts(pins: &PinForm) -> Vec<FitCheck> {
    let mut checks = Vec::new();
    if let (Some(bore), Some(stud)) = (length_of(&pins.eye_bore), length_of(&pins.stud)) {
        let play = bore - stud;
        let good = play >= Length::ZERO && play <= Length::from_mm(0.8);
        let says = Phrase::of(|w| {
            if play < Length::ZERO {
                format!(
                    "The stud is {} too thick: press the sleeve out, or take a thinner stud.",
                    w.fine(play)
                )
            } else {
                format!("{} of play.", w.fine(play))
            }
        });
        checks.push(check("stud in the link's eye", good, says));
    }
    if let (Some(stud), Some(nut)) = (&pins.stud_thread, &pins.nut_thread) {
        let same = (stud.diameter() - nut.diameter()).abs() < Length::from_mm(0.05)
            && (stud.pitch() - nut.pitch()).abs() < Length::from_mm(0.01);
        let says = if same {
            "Diameter and pitch are the same.".to_owned()
        } else {
            format!(
                "{} on {}: it starts, and strips. Take the nut of the stud's own thread.",
                nut.text(),
                stud.text()
            )
        };
        checks.push(check("nut on the stud", same, Phrase::plain(&says)));
    }
    if let Some(reaches) = pins.hand_reaches {
        let says = if reaches {
            "A hand reaches the pin."
        } else {
            "No hand reaches the pin: turn the stud round, so that the pin's side faces out."
        };
        checks.push(check("pin's side", reaches, Phrase::plain(says)));
    }
    if let Some(room) = length_of(&pins.stowed_room) {
        let says = Phrase::of(|w| {
            format!("{} over it at full bump; {} is wanted.", w.distance(room), w.distance(usual::LEAST_LEFT))
        });
        checks.push(check("stowed link, as taped", room >= usual::LEAST_LEFT, says));
    }
    checks
}
