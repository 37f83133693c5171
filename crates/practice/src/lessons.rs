//! Lessons: made-up vehicles with something planted, what each teaches, and what loses it.

use derecho_core::measure::{Length, Unit};
use derecho_job::Job;
use derecho_job::document::migrate::with_values;
use serde::{Deserialize, Serialize};
use serde_json::json;
use utoipa::ToSchema;

use crate::vehicle::{PracticeVehicle, Stance, SwayLink};

/// What is planted.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Planted {
    /// Nothing but an axle that is off: the difference of both sides is twice what it is off.
    FullDifference,
    /// It hangs.
    Hanging,
    /// Somebody leans on it.
    LeantOn,
    /// A bracket was welded on an inch out.
    BracketOut,
    /// A nut of the wrong pitch.
    WrongNut,
    /// A worn hole.
    OvalHole,
    /// It stands in a raised mode.
    Raised,
    /// A link that goes over centre.
    OverCentre,
    /// One end has much less thread in.
    UnevenThreads,
}

/// A lesson.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Lesson {
    /// What is planted; its name as well.
    pub planted: Planted,
    /// What it is called, without giving it away.
    pub title: &'static str,
    /// How it comes into the bay.
    pub begins: &'static str,
    /// What is to be learnt, told afterwards.
    pub learns: &'static str,
    /// What a careful hand would have done.
    pub careful: &'static str,
}

/// Every lesson, the plainest first.
pub const LESSONS: [Lesson; 9] = [
    Lesson {
        planted: Planted::FullDifference,
        title: "The easy one",
        begins: "A service truck came back from its lift with the axle off to one side. Center it.",
        learns: "The axle is off by half the left-right difference. Adjust by the whole difference and it is just as far off the other way.",
        careful: "Measure each side four times, bouncing it in between; turn the sleeve by the turns and flats on the Bar screen; measure both sides again.",
    },
    Lesson {
        planted: Planted::Hanging,
        title: "Up on jack stands",
        begins: "It is up on jack stands, wheels off the floor. The last person to look at it says the axle is way over.",
        learns: "A hanging axle moves sideways on its bar. Anything measured there is no use at driven height.",
        careful: "Set it down on its wheels, bounce it to settle, then measure.",
    },
    Lesson {
        planted: Planted::LeantOn,
        title: "The helper with nothing to do",
        begins: "The truck is on its wheels. A helper is watching, leaning on the fender.",
        learns: "Someone leaning on the body moves it more than a tape can resolve.",
        careful: "Send the helper away, bounce the truck, then measure.",
    },
    Lesson {
        planted: Planted::BracketOut,
        title: "The bar that doesn't fit",
        begins: "Someone else welded on a bracket. The bar came with the kit and both ends are screwed in.",
        learns: "A bracket an inch out of place needs a length this bar can't do. Screwing the threads in till they bottom out won't make it shorter.",
        careful: "Measure both sides and check the Bar screen: it says the bar can't go that short. The bracket goes back to whoever welded it.",
    },
    Lesson {
        planted: Planted::WrongNut,
        title: "Last nut in the bag",
        begins: "The axle is a little off. The bar bolt is 9/16-18; the one nut left in the kit bag is stamped 9/16-12.",
        learns: "A nut of the right diameter and the wrong pitch goes on two turns and strips the bolt on the third.",
        careful: "Start the nut by hand; it binds: don't use it, get the right one. Then center the axle.",
    },
    Lesson {
        planted: Planted::OvalHole,
        title: "It never measures the same twice",
        begins: "Two shops have adjusted this one already. It was never the same the next day.",
        learns: "When repeats scatter more than a tape should, something is moving. Fix a worn hole before you adjust anything.",
        careful: "Take repeats, bouncing it in between: they disagree. Check the bolt holes, fix the worn one, measure again, then adjust.",
    },
    Lesson {
        planted: Planted::Raised,
        title: "A switch on the dash",
        begins: "It has air springs, and someone left a switch on. It is level on its wheels.",
        learns: "Measured and adjusted in a raised mode, the axle is off again as soon as it is driven at its normal height.",
        careful: "Lower it to the height it is driven, bounce it, then measure.",
    },
    Lesson {
        planted: Planted::OverCentre,
        title: "Sway links from the old springs",
        begins: "Lifted and centered, but still on the stock-height sway links. Two longer pairs are on the bench.",
        learns: "A sway link that is too short pulls straight at droop and goes over center: the sway bar arm stays flipped and the sway link breaks.",
        careful: "Check the Sway screen for the lengths that work over full travel, and install that pair.",
    },
    Lesson {
        planted: Planted::UnevenThreads,
        title: "More thread on one end",
        begins: "The axle is well off and the bar has to get longer. Whoever built it screwed one end in much farther than the other.",
        learns: "Turning the sleeve takes the same amount of thread out of both ends. The end with less runs out before the axle is centered.",
        careful: "Even up both ends first, then use the turns and flats on the Bar screen.",
    },
];

impl Lesson {
    /// The lesson of what is planted.
    #[must_use]
    pub fn of(planted: Planted) -> &'static Self {
        // Every one is in the list.
        LESSONS.iter().find(|lesson| lesson.planted == planted).unwrap_or(&LESSONS[0])
    }

    /// The vehicle as it comes into the bay.
    #[must_use]
    pub fn vehicle(&self, seed: u64, unit: Option<Unit>) -> PracticeVehicle {
        let mut seed = seed;
        let mut vehicle = PracticeVehicle::drawn(seed);
        // A unit that was asked for is drawn for.
        while unit.is_some_and(|unit| unit != vehicle.unit) {
            seed = seed.wrapping_add(0x9E37_79B9);
            vehicle = PracticeVehicle::drawn(seed);
        }
        vehicle.plant(self.planted);
        vehicle
    }
}

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

impl PracticeVehicle {
    fn sit_at(&mut self, off: f64) {
        let offset = mm(off * self.ground_truth_side());
        self.ground_truth.bar = self.length_for(offset);
    }

    /// Plants a lesson's fault. `off` towards the frame eye asks for a longer bar.
    fn plant(&mut self, planted: Planted) {
        self.ground_truth.obstacle = None;
        // Bushings that hold it a little, and always the same way: no lesson is won by their chance.
        self.ground_truth.hold = mm(2.0);
        // Faces that lie as most do: a lesson is not lost by a frame.
        self.ground_truth.out = self.ground_truth.out.map(|sides| sides.map(|out| out / 4.0));
        match planted {
            Planted::FullDifference => self.sit_at(13.0),
            Planted::Hanging => {
                self.sit_at(9.0);
                self.stance = Stance::Hanging;
            }
            Planted::LeantOn => {
                self.sit_at(-8.0);
                self.ground_truth.leaning = mm(7.0);
                self.leant_on = true;
            }
            Planted::BracketOut => {
                // Towards the side away from the frame eye: the bar is too long, and has eight millimetres an end.
                self.sit_at(-24.0);
                self.depth = self.engagement[0] + mm(5.0);
            }
            Planted::WrongNut => self.sit_at(7.0),
            Planted::OvalHole => {
                self.sit_at(10.0);
                self.ground_truth.play = mm(5.0);
                self.bounce();
            }
            Planted::Raised => {
                self.sit_at(8.0);
                self.raised = mm(60.0);
            }
            Planted::OverCentre => {
                self.sit_at(0.0);
                self.link =
                    Some(SwayLink { arm: mm(250.0), ahead: mm(230.0), below: mm(200.0), length: mm(110.0) });
                (self.ground_truth.droop, self.ground_truth.bump) = (mm(110.0), mm(80.0));
            }
            Planted::UnevenThreads => {
                self.sit_at(20.0);
                let least = self.least_thread();
                self.engagement = [least + mm(26.0), least + mm(3.0)];
            }
        }
    }

    /// What the maker's sheet of the bar's kit says of it: the lengths it is made for.
    pub(crate) fn with_sheets(&self, mut job: Job) -> Job {
        if let Some(link) = &self.link {
            let side = |length: Length| json!({ "text": format!("{:.0}", length.to_mm()), "unit": "mm" });
            let axis = self.ground_truth.axle_height + mm(260.0);
            let form = json!({
                "kind": "one_piece", "on": "body", "forward": true,
                "axis": { "height": side(axis), "sideways": side(Length::ZERO), "fore_aft": side(link.ahead * -1.0) },
                "holes": [{ "id": "hole-1", "arm": side(link.arm) }], "hole": "hole-1", "eye_from_centre": side(mm(420.0)), "link": side(link.length),
                "far_end": { "height": side(axis - link.below), "sideways": side(mm(420.0)), "fore_aft": side(Length::ZERO) },
                "diameter": side(mm(24.0)), "active_length": side(mm(840.0)),
            });
            // The document's own form.
            job = with_values(&job, [("/sway", form)]).unwrap_or_else(|fault| unreachable!("{fault}"));
        }
        job
    }
}
