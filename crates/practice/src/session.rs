//! One lesson under way: what is done to the vehicle and read of it, and the debriefing.

use derecho_core::measure::{Length, Phrase, Side, Unit};
use derecho_job::Job;
use derecho_job::document::Method;
use derecho_job::results::never_settled;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::lessons::{Lesson, Planted};
use crate::technician::{Technician, feature};
use crate::trial::CENTRED;
use crate::vehicle::{PracticeVehicle, Stance};

/// What a careful tape scatters by in a learner's hands.
const NOISE: Length = Length::from_mm(0.7);
/// Links that lie on the bench, between their eyes, mm.
pub const LINKS: [f64; 3] = [110.0, 200.0, 300.0];

/// Something that is done in the practice bay.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", tag = "act")]
pub enum Act {
    /// The tape from a feature on one side.
    Read {
        /// From what to what.
        method: Method,
        /// Which side.
        side: Side,
    },
    /// The tape from the floor to the bar's frame eye.
    ReadFrameEye,
    /// The tape from the floor to the bar's axle eye.
    ReadAxleEye,
    /// The tape along the bar, eye to eye.
    ReadBar,
    /// Bounced until it settles.
    Bounce,
    /// Down on its wheels.
    LetDown,
    /// Up on stands, the axle hanging.
    Lift,
    /// Out of the raised mode.
    LeaveRaised,
    /// The helper sent away.
    SendAway,
    /// The sleeve turned.
    Turn {
        /// Sixths of a turn, + longer.
        #[schema(minimum = -600, maximum = 600)]
        flats: i32,
    },
    /// Both ends evened.
    EvenEnds,
    /// The nut started by hand.
    StartNut,
    /// The nut driven on with the wrench.
    DriveNut,
    /// The nut refused, and the right one put on.
    RefuseNut,
    /// The worn hole made good.
    MendHole,
    /// A pair of links hung.
    HangLinks {
        /// Which of those on the bench, from 0.
        pair: usize,
    },
    /// The bracket sent back to whoever welded it.
    SendBack,
}

/// What came of it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Done {
    /// What was done.
    pub act: Act,
    /// What could be seen.
    pub says: Phrase,
    /// What the tape showed, mm.
    #[serde(
        skip_serializing_if = "Option::is_none",
        serialize_with = "derecho_core::measure::figure::millimetres"
    )]
    #[schema(nullable = false)]
    pub shows_mm: Option<f64>,
}

/// What lost a lesson, or was passed over.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Mistake {
    /// Read while it hung.
    ReadHanging,
    /// Read while somebody leant on it.
    ReadLeantOn,
    /// Read in a raised mode.
    ReadRaised,
    /// Read before it was bounced.
    ReadUnsettled,
    /// Turned until a thread bottomed or came out.
    ThreadEnded,
    /// A nut of the wrong pitch driven on.
    Stripped,
    /// Called done with a bar that does not reach.
    NotSentBack,
    /// Called done with links that go over centre.
    OverCentre,
    /// Called done with the axle off.
    StillOff,
    /// Called done without a nut.
    NoNut,
    /// Called done with a worn hole.
    WornHole,
    /// Called done with too little thread in.
    LittleThread,
}

impl Mistake {
    /// Whether it loses the lesson wherever the axle is: what is stripped stays so.
    #[must_use]
    pub const fn is_fatal(self) -> bool {
        matches!(self, Self::Stripped | Self::ThreadEnded)
    }

    /// In words.
    #[must_use]
    pub fn says(self) -> Phrase {
        let says = match self {
            Self::ReadHanging => "Measured with the axle hanging.",
            Self::ReadLeantOn => "Measured while someone leaned on it.",
            Self::ReadRaised => "Measured in a raised mode.",
            Self::ReadUnsettled => "Measured before bouncing it: bushings still held it over.",
            Self::ThreadEnded => "Turned until a thread bottomed out or was about to come out.",
            Self::Stripped => "Forced a nut of the wrong pitch on with a wrench: the bolt is stripped.",
            Self::NotSentBack => "The bar doesn't reach, and the bracket was left where it is.",
            Self::OverCentre => "The sway links go over center at full droop.",
            Self::StillOff => {
                return Phrase::of(|w| {
                    format!("The axle is actually more than {} off center.", w.distance(CENTRED))
                });
            }
            Self::NoNut => "The bar bolt has no nut on it.",
            Self::WornHole => "The worn hole was not fixed.",
            Self::LittleThread => "One end doesn't have enough thread engaged.",
        };
        Phrase::plain(says)
    }
}

/// How a lesson went: told once it is called done.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Debriefing {
    /// Whether it was won.
    pub won: bool,
    /// How far the axle truly sat to the left as it came in, mm.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub truly_before_mm: f64,
    /// How far it truly sits to the left now, at the height it is driven at, mm.
    #[serde(serialize_with = "derecho_core::measure::figure::millimetres")]
    pub truly_now_mm: f64,
    /// How far it was believed to sit, by the newest sheet of the job, mm; absent without one.
    #[serde(
        skip_serializing_if = "Option::is_none",
        serialize_with = "derecho_core::measure::figure::millimetres"
    )]
    #[schema(nullable = false)]
    pub believed_mm: Option<f64>,
    /// The truth in one sentence, beside what was believed.
    pub says: Phrase,
    /// What lost it, or was passed over.
    pub passed_over: Vec<Phrase>,
    /// What is to be learnt.
    pub learns: String,
    /// What a careful hand would have done.
    pub careful: String,
    /// Readings of the tape.
    pub readings: usize,
    /// How long it took, in seconds.
    pub seconds: i64,
}

/// A lesson under way.
#[derive(Clone, Debug)]
pub struct Session {
    lesson: &'static Lesson,
    vehicle: PracticeVehicle,
    before: Length,
    done: Vec<Done>,
    mistakes: Vec<Mistake>,
    readings: usize,
    sent_back: bool,
    right_nut: bool,
    mended: bool,
}

impl Session {
    /// Begins a lesson, and the job its vehicle comes with: the rig and the bar as they were read, no sheet yet.
    #[must_use]
    pub fn begin(lesson: &'static Lesson, seed: u64, unit: Option<Unit>) -> (Self, Job) {
        let mut vehicle = lesson.vehicle(seed, unit);
        let mut job = vehicle.with_sheets(Technician::Careful.rig(&mut vehicle.clone()));
        lesson.title.clone_into(&mut job.title);
        let before = vehicle.true_offset();
        let held_by_bushings = !matches!(lesson.planted, Planted::Hanging | Planted::OvalHole);
        vehicle.unsettled = held_by_bushings && lesson.planted != Planted::OverCentre;
        let session = Self {
            lesson,
            vehicle,
            before,
            done: Vec::new(),
            mistakes: Vec::new(),
            readings: 0,
            sent_back: false,
            right_nut: false,
            mended: false,
        };
        (session, job)
    }

    /// The lesson.
    #[must_use]
    pub const fn lesson(&self) -> &'static Lesson {
        self.lesson
    }

    /// The unit of its tape.
    #[must_use]
    pub const fn unit(&self) -> Unit {
        self.vehicle.unit
    }

    /// What was done so far, in order.
    #[must_use]
    pub fn done(&self) -> &[Done] {
        &self.done
    }

    /// How it stands, for everybody to see.
    #[must_use]
    pub fn stands(&self) -> &'static str {
        match (self.vehicle.stance, self.vehicle.leant_on, self.vehicle.raised > Length::ZERO) {
            (Stance::Hanging, ..) => "On jack stands, the axle hanging.",
            (_, true, _) => "On its wheels. A helper leans on the fender.",
            (_, _, true) => "On its wheels. The dash switch is on HIGH.",
            _ => "On its wheels.",
        }
    }

    /// What can be done here and now.
    #[must_use]
    pub fn acts(&self) -> Vec<Act> {
        let mut acts = vec![Act::Bounce, Act::ReadFrameEye, Act::ReadAxleEye, Act::ReadBar];
        acts.push(if self.vehicle.stance == Stance::Hanging { Act::LetDown } else { Act::Lift });
        if self.vehicle.leant_on {
            acts.push(Act::SendAway);
        }
        if self.vehicle.raised > Length::ZERO {
            acts.push(Act::LeaveRaised);
        }
        match self.lesson.planted {
            Planted::WrongNut if !self.right_nut => {
                acts.extend([Act::StartNut, Act::DriveNut, Act::RefuseNut]);
            }
            Planted::OvalHole => acts.push(Act::MendHole),
            Planted::OverCentre => acts.extend((0..LINKS.len()).map(|pair| Act::HangLinks { pair })),
            Planted::UnevenThreads => acts.push(Act::EvenEnds),
            Planted::BracketOut => acts.push(Act::SendBack),
            _ => {}
        }
        acts
    }

    fn mistake(&mut self, mistake: Mistake) {
        if !self.mistakes.contains(&mistake) {
            self.mistakes.push(mistake);
        }
    }

    /// What the tape shows.
    fn shows(&mut self, act: Act, length: Length) -> Done {
        self.readings += 1;
        let style = derecho_core::measure::print::Style::everyday(self.vehicle.unit);
        let text = derecho_core::measure::print::written(length, style);
        Done { act, says: Phrase::plain(&format!("The tape reads {text}.")), shows_mm: Some(length.to_mm()) }
    }

    /// The tape on one side, as it stands.
    fn read(&mut self, act: Act, (method, side): (Method, Side)) -> Done {
        if self.vehicle.stance == Stance::Hanging {
            self.mistake(Mistake::ReadHanging);
        } else if self.vehicle.leant_on {
            self.mistake(Mistake::ReadLeantOn);
        } else if self.vehicle.raised > Length::ZERO {
            self.mistake(Mistake::ReadRaised);
        } else if self.vehicle.unsettled {
            self.mistake(Mistake::ReadUnsettled);
        }
        let feature = feature(method).unwrap_or(crate::ground_truth::Feature::Hub);
        let length = self.vehicle.read(feature, side, NOISE);
        self.shows(act, length)
    }

    /// Does something.
    pub fn act(&mut self, act: Act) -> &Done {
        let reported = |says: &str| Done { act, says: Phrase::plain(says), shows_mm: None };
        let vehicle = &mut self.vehicle;
        let done = match act {
            Act::Read { method, side } => self.read(act, (method, side)),
            Act::ReadFrameEye | Act::ReadAxleEye => {
                let heights = vehicle.read_eyes(NOISE);
                self.shows(act, heights[usize::from(act == Act::ReadAxleEye)])
            }
            Act::ReadBar => {
                let length = vehicle.read_bar(NOISE);
                self.shows(act, length)
            }
            Act::Bounce if vehicle.stance == Stance::Hanging => reported("It is hanging: nothing to bounce."),
            Act::Bounce => {
                vehicle.bounce();
                reported("Bounced; it has settled.")
            }
            Act::LetDown => {
                vehicle.stand(Stance::OnItsWeight);
                reported("Down on its wheels. The bushings still hold it over.")
            }
            Act::Lift => {
                vehicle.stand(Stance::Hanging);
                reported("Up on jack stands, axle hanging.")
            }
            Act::LeaveRaised => {
                vehicle.raised = Length::ZERO;
                vehicle.unsettled = true;
                reported("The body comes down to its normal height.")
            }
            Act::SendAway => {
                vehicle.leant_on = false;
                vehicle.unsettled = true;
                reported("The helper goes for coffee.")
            }
            Act::Turn { flats } => {
                if vehicle.turn_flats(flats) {
                    reported("Turned. The bushings hold the axle over until you bounce it.")
                } else {
                    self.mistake(Mistake::ThreadEnded);
                    reported("It won't go that far: one end bottoms out or would come out.")
                }
            }
            Act::EvenEnds => {
                vehicle.even_ends();
                let engaged = vehicle.graduated(vehicle.engagement[0]);
                Done {
                    act,
                    says: Phrase::of(|w| {
                        format!(
                            "{} of thread engaged at each end. Enter it on the Bar screen.",
                            w.fine(engaged)
                        )
                    }),
                    shows_mm: Some(engaged.to_mm()),
                }
            }
            Act::StartNut => reported("Two turns by hand, then it binds."),
            Act::DriveNut => {
                self.right_nut = true;
                self.mistake(Mistake::Stripped);
                reported("It goes on with a squeal.")
            }
            Act::RefuseNut => {
                self.right_nut = true;
                reported("The right one comes out of the drawer and spins on by hand.")
            }
            Act::MendHole => {
                vehicle.mend_hole();
                self.mended = true;
                reported("Worn hole fixed; the bolt is snug.")
            }
            Act::HangLinks { pair } => {
                let length = LINKS.get(pair).copied().unwrap_or(LINKS[0]);
                if let Some(link) = &mut vehicle.link {
                    link.length = Length::from_mm(length);
                }
                Done {
                    act,
                    says: Phrase::of(|w| format!("The {} pair is on.", w.fine(Length::from_mm(length)))),
                    shows_mm: None,
                }
            }
            Act::SendBack => {
                self.sent_back = true;
                reported("The bracket goes back with a note of what it should be.")
            }
        };
        self.done.push(done);
        // Just pushed.
        &self.done[self.done.len() - 1]
    }

    /// What is wrong with the vehicle as it is called done.
    fn left(&self) -> Vec<Mistake> {
        let off = self.vehicle.true_offset().abs() > CENTRED;
        let short = self.vehicle.engagement.iter().any(|engaged| *engaged < self.vehicle.least_thread());
        let ground_truth = &self.vehicle.ground_truth;
        let over_centre =
            self.vehicle.link.is_some_and(|link| link.fails(ground_truth.droop, ground_truth.bump));
        let mut left = Vec::new();
        match self.lesson.planted {
            Planted::BracketOut if !self.sent_back => left.push(Mistake::NotSentBack),
            Planted::OverCentre if over_centre => left.push(Mistake::OverCentre),
            Planted::BracketOut | Planted::OverCentre => {}
            _ if off => left.push(Mistake::StillOff),
            _ => {}
        }
        if self.lesson.planted == Planted::WrongNut && !self.right_nut {
            left.push(Mistake::NoNut);
        }
        if self.lesson.planted == Planted::OvalHole && !self.mended {
            left.push(Mistake::WornHole);
        }
        if short {
            left.push(Mistake::LittleThread);
        }
        left
    }

    /// Tells the truth beside what was believed. `job` is the one the lesson was worked on.
    #[must_use]
    pub fn debrief(&self, job: &Job, seconds: i64) -> Debriefing {
        let now = self.vehicle.true_offset();
        let results = derecho_job::results::solve(job, never_settled);
        let believed = results.sheets.iter().rev().find_map(|sheet| Some(sheet.centring.as_ref()?.offset_mm));
        let left = self.left();
        let won = left.is_empty() && !self.mistakes.iter().any(|mistake| mistake.is_fatal());
        Debriefing {
            won,
            truly_before_mm: self.before.to_mm(),
            truly_now_mm: now.to_mm(),
            believed_mm: believed.map(Length::to_mm),
            says: Phrase::of(|w| {
                let believed = believed.map_or_else(
                    || "Nothing was entered in its job.".to_owned(),
                    |offset| format!("By your last measurements it is {}.", w.sideways(offset)),
                );
                format!(
                    "It came in {}. It is actually {} now. {believed}",
                    w.sideways(self.before),
                    w.sideways(now)
                )
            }),
            passed_over: left.iter().chain(&self.mistakes).map(|mistake| mistake.says()).collect(),
            learns: self.lesson.learns.to_owned(),
            careful: self.lesson.careful.to_owned(),
            readings: self.readings,
            seconds,
        }
    }
}
