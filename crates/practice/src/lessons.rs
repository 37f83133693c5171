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
        title: "The plain one",
        begins: "A service truck that came back from its lift with the axle to one side. Set it straight.",
        learns: "The axle is off by half the difference of the two sides. Turning the whole difference puts it as far off on the other one.",
        careful: "Four readings on each side, bounced between; the turns and flats of stage Bar; both sides read again.",
    },
    Lesson {
        planted: Planted::Hanging,
        title: "Up on the stands",
        begins: "It stands on stands, the wheels off the floor. The last one to look at it says the axle is well over.",
        learns: "A hanging axle swings sideways on its bar. What is read there is no use at the height it is driven at.",
        careful: "Down on its wheels, bounced until it settles, and only then read.",
    },
    Lesson {
        planted: Planted::LeantOn,
        title: "A helper with time",
        begins: "The truck stands on its wheels. A helper watches, both arms on the fender.",
        learns: "A person who leans on the body moves it by more than the tape is good to.",
        careful: "The helper sent away, the truck bounced, then read.",
    },
    Lesson {
        planted: Planted::BracketOut,
        title: "The bar that does not fit",
        begins: "A bracket was welded on by somebody else. The bar came with the kit and is threaded in at both ends.",
        learns: "A bracket an inch out asks for a length the bar does not have. Threads screwed in until they bottom do not make it shorter.",
        careful: "Both sides read, stage Bar asked: it says that the bar cannot be so short. The bracket goes back to whoever welded it.",
    },
    Lesson {
        planted: Planted::WrongNut,
        title: "The last nut in the bag",
        begins: "The axle is a little off. The bar's bolt is a 9/16-18; the kit's bag has one nut left, and a stamp on it: 9/16-12.",
        learns: "A nut of the same diameter and another pitch goes on for two turns and strips the bolt on the third.",
        careful: "The nut started by hand; it binds: refused, and the right one asked for. Then the axle set.",
    },
    Lesson {
        planted: Planted::OvalHole,
        title: "It will not read the same twice",
        begins: "Two shops have set this one before. It was never the same the next day.",
        learns: "Where repeats scatter by more than a tape does, something moves. A worn hole is made good before anything is set.",
        careful: "Repeats, bounced between: they disagree. The bolt holes looked at, the worn one made good, read again, set.",
    },
    Lesson {
        planted: Planted::Raised,
        title: "A switch on the dash",
        begins: "It has air springs, and a switch that somebody left on. It stands level on its wheels.",
        learns: "Read and set in a raised mode, the axle is off again as soon as it is driven at its own height.",
        careful: "Let down to the height it is driven at, bounced, then read.",
    },
    Lesson {
        planted: Planted::OverCentre,
        title: "Links from the old springs",
        begins: "Lifted, the axle centred, and still on the sway-bar links of the old springs. Two longer pairs lie on the bench.",
        learns: "A link that is too short pulls straight in droop and turns over: the arm stays where it is and the link breaks.",
        careful: "Stage Sway asked which lengths work over the whole travel, and that pair hung.",
    },
    Lesson {
        planted: Planted::UnevenThreads,
        title: "More thread here than there",
        begins: "The axle is off by a good deal, and the bar has to become longer. Whoever built it started one end long before the other.",
        learns: "Turning takes as much thread out of the one end as of the other. Where one has little, it is out before the axle is centred.",
        careful: "Both ends evened first, then the turns and flats of stage Bar.",
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
