//! The list of fasteners: what is known of each, whether nut, hole and torque are its own, how tight it was made. No
//! torque is ever supplied from here.

use super::message::{FastenerName, FastenerWhat};
use super::tasks::Task;
use crate::document::{Job, gate_keys, length_of};
use crate::message::{Label, Message};
use crate::work::kinds::bracket::Bolts;
use derecho_core::bar::adjuster::AdjusterKind;
use derecho_core::fastener::hex::across_flats;
use derecho_core::fastener::stack::{PLAY, Stack, reckon};
use derecho_core::fastener::strength::{Grade, ThreadTreatment, reference_torque, torque_stands};
use derecho_core::fastener::{Thread, stack::NutKind};
use derecho_core::measure::print::{Style, written};
use derecho_core::measure::{Length, Moment, TapeEntry, TorqueEntry};
use derecho_core::parts::BracketEnd;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::situation::{BAR_BOLTS, Situation, end_of, eye_bolt};
use crate::bolt_up::message::BoltUpMessage;
use crate::bracket::message::{BracketCheck, BracketMessage};
use crate::bracket::stack::length_of_stack;
use crate::defaults;
use crate::document::work::{FastenerForm, TorqueSource};
use crate::verdict::{FitCheck, FitVerdict, check};

/// A wrench reads within so much of what was wanted.
const AS_WANTED: f64 = 0.05;

/// How tight a fastener is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Tightness {
    /// Not on record.
    Open,
    /// With a wrench, as wanted where that was given.
    Tight,
    /// With a wrench, otherwise than wanted.
    OtherThanWanted,
    /// By feel.
    ByFeel,
    /// Struck out of the plan.
    Struck,
}

/// A fastener of the plan.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FastenerLine {
    /// Its key.
    pub key: String,
    /// What it is.
    #[schema(value_type = String)]
    pub name: Label,
    /// How many there are, where the plan knows.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub count: Option<u32>,
    /// Everything known of it but its torque, in one line; empty where nothing is.
    #[schema(value_type = String)]
    pub what: Label,
    /// The torque that was given, in both units and with who gave it, or that it is to be taken from the sheet.
    pub torque_says: Message,
    /// Nut, hole, and the torque beside what is usual.
    pub checks: Vec<FitCheck>,
    /// How tight it is.
    pub tightness: Tightness,
    /// The same in words, where it is on record.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tight_says: Option<Message>,
    /// What it is drawn with.
    pub drawn: DrawnBolt,
}

/// A bolt through two ears, as it is drawn; usual sizes where it was not measured.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DrawnBolt {
    /// Diameter of its thread.
    pub diameter_mm: Length,
    /// Across the flats of its head.
    pub head_mm: Length,
    /// Across the flats of its nut.
    pub nut_mm: Length,
    /// Height of its nut.
    pub nut_height_mm: Length,
    /// Thickness of one ear.
    pub ear_mm: Length,
    /// Between the ears; none for a bolt that holds a bracket against what it sits on.
    pub between_mm: Length,
    /// Thickness of one washer.
    pub washer_mm: Length,
    /// Under its head.
    pub length_mm: Length,
    /// Whether every size is a measured one.
    pub measured: bool,
    /// The wrench for its head, where its thread is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub head_wrench: Option<String>,
    /// The wrench for its nut, where the nut does not hold itself.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub nut_wrench: Option<String>,
}

/// Bolt nobody named, mm.
const USUAL_DIAMETER: Length = Length::from_mm(14.0);
/// Ear, space between the ears and washer nobody measured, mm.
const USUAL: [Length; 3] = [Length::from_mm(6.0), Length::from_mm(44.0), Length::from_mm(3.0)];

fn drawn(job: &Job, key: &str, known: &KnownFastener) -> DrawnBolt {
    let through_an_eye = BAR_BOLTS.contains(&key);
    let bolt = eye_bolt(job, key);
    let of_the_eye = |length: Option<Length>| length.filter(|_| through_an_eye);
    let thread = known.thread.as_ref();
    let diameter = thread.map_or(USUAL_DIAMETER, Thread::diameter);
    let flats = thread.and_then(across_flats);
    let [head, nut_flats] = flats.unwrap_or([diameter * 1.5; 2]);
    let nut = known.nut.unwrap_or_default();
    let between = match end_of(key) {
        Some(end) => job.bracket.ear_width_at(end),
        None => job.bracket.ear_width.as_ref(),
    };
    let (ear, between) = (of_the_eye(length_of(&bolt.ear)), of_the_eye(between.map(TapeEntry::length)));
    let washer = of_the_eye(length_of(&bolt.washer));
    let nut_height = of_the_eye(length_of(&bolt.nut_height)).unwrap_or(diameter * nut.usual_height());
    let typed = job.bolt_up.fastener(key).and_then(|form| length_of(&form.length));
    let length = typed.or_else(|| of_the_eye(length_of(&bolt.length)));
    let measured = thread.is_some() && ear.is_some() && between.is_some() && length.is_some();
    let [usual_ear, usual_between, usual_washer] = USUAL;
    // Other bolts hold a bracket against what it sits on, with nothing between.
    let usual_between = if through_an_eye { usual_between } else { Length::ZERO };
    let (ear, between, washer) =
        (ear.unwrap_or(usual_ear), between.unwrap_or(usual_between), washer.unwrap_or(usual_washer));
    let metric = thread.is_some_and(Thread::is_metric);
    DrawnBolt {
        diameter_mm: diameter,
        head_mm: head,
        nut_mm: nut_flats,
        nut_height_mm: nut_height,
        length_mm: length.unwrap_or(ear * 2.0 + between + washer * 2.0 + nut_height * 1.3),
        ear_mm: ear,
        between_mm: between,
        washer_mm: washer,
        measured,
        head_wrench: flats.map(|[head, _]| wrench_size(head, metric)),
        nut_wrench: flats.filter(|_| nut.needs_wrench()).map(|[_, nut]| wrench_size(nut, metric)),
    }
}

/// A wrench by its size: half millimetres, or sixteenths of an inch.
pub(super) fn wrench_size(flats: Length, metric: bool) -> String {
    written(flats, if metric { Style::HalfMillimetres } else { Style::Sixteenths })
}

/// What is known of a fastener: as typed for it, else what stage Bracket or Sway knows.
#[derive(Clone, Debug, Default)]
pub(super) struct KnownFastener {
    pub(super) thread: Option<Thread>,
    pub(super) nut: Option<NutKind>,
    nut_thread: Option<Thread>,
    grade: Option<Grade>,
    treatment: Option<ThreadTreatment>,
    hole: Option<Length>,
    torque: Option<TorqueEntry>,
    source: Option<TorqueSource>,
    /// Its diameter as measured.
    diameter: Option<Length>,
    /// Whether it goes through an eye of the bar, where play knocks.
    through_an_eye: bool,
}

impl KnownFastener {
    pub(super) fn of(job: &Job, key: &str) -> Self {
        let default = FastenerForm::default();
        let form = job.bolt_up.fastener(key).unwrap_or(&default);
        let mut known = Self {
            thread: form.thread.clone(),
            nut: form.nut,
            nut_thread: form.nut_thread.clone(),
            grade: form.grade,
            treatment: form.treatment,
            hole: length_of(&form.hole),
            torque: form.torque.clone(),
            source: form.source,
            diameter: None,
            through_an_eye: BAR_BOLTS.contains(&key),
        };
        // The bolt through the eye is described in stage Bracket; what is typed here for one of both rules.
        let bolt = eye_bolt(job, key);
        if BAR_BOLTS.contains(&key) && known.thread.is_none() {
            known.thread.clone_from(&bolt.thread);
            known.nut = known.nut.or(bolt.thread.as_ref().map(|_| bolt.nut));
            known.nut_thread = known.nut_thread.or_else(|| bolt.nut_thread.clone());
            known.grade = known.grade.or(bolt.grade);
            known.treatment = known.treatment.or(bolt.thread.as_ref().map(|_| bolt.treatment));
            known.hole = known.hole.or_else(|| length_of(&bolt.hole));
            known.diameter = length_of(&bolt.diameter);
            if known.torque.is_none() && bolt.torque.is_some() {
                known.torque.clone_from(&bolt.torque);
                known.source = known.source.or(Some(TorqueSource::PartsSheet));
            }
        }
        if key == "disconnect/studs" && known.thread.is_none() {
            known.thread.clone_from(&job.sway.pins.stud_thread);
            known.nut_thread = known.nut_thread.or_else(|| job.sway.pins.nut_thread.clone());
        }
        if key == "sway/links-jam" && known.thread.is_none() {
            known.thread.clone_from(&job.sway.link_thread);
        }
        known
    }

    fn wanted(&self) -> Option<Moment> {
        self.torque.as_ref().map(TorqueEntry::torque)
    }

    /// Whether the nut is another bolt's.
    pub(super) fn nut_is_wrong(&self) -> bool {
        self.thread.as_ref().zip(self.nut_thread.as_ref()).is_some_and(|(bolt, nut)| !nut.takes(bolt))
    }

    fn what(&self, form: Option<&FastenerForm>) -> FastenerWhat {
        let typed = |text: &str| Some(text.trim().to_owned()).filter(|text| !text.is_empty());
        FastenerWhat {
            thread: self.thread.as_ref().map(|thread| thread.text().to_owned()),
            grade: self.grade,
            nut: self.nut,
            treatment: self.treatment,
            head: form.and_then(|form| form.head),
            reused_from: form.and_then(|form| typed(&form.reused_from)),
            access: form.and_then(|form| typed(&form.access)),
        }
    }

    /// What is on a bolt whose grip was typed here; that of the eye's bolt is in stage Bracket.
    fn stack(&self, form: &FastenerForm) -> Option<Stack> {
        Some(Stack {
            bolt: self.thread.clone()?,
            clamped: vec![length_of(&form.grip)?],
            washers: length_of(&form.washer).map_or_else(Vec::new, |washer| vec![washer; 2]),
            nut: self.nut.unwrap_or_default(),
            nut_thread: self.nut_thread.clone(),
            nut_height: None,
            hole: self.hole,
            length: length_of(&form.length),
            threaded: None,
            room_at_head: None,
            room_at_nut: None,
        })
    }

    fn checks(&self, form: Option<&FastenerForm>) -> Vec<FitCheck> {
        // A castle nut on a taper is drawn up until the taper seats: what a bolt would be clamped with says nothing of it.
        let clamps = self.nut != Some(NutKind::Castle);
        let torque = self.thread.as_ref().zip(self.grade).filter(|_| clamps).map(|(thread, grade)| {
            let treatment = self.treatment.unwrap_or_default();
            let usual = reference_torque(thread, grade, treatment);
            let stands = self.wanted().map(|given| torque_stands(given, thread, grade, treatment));
            let verdict = match stands {
                None => FitVerdict::Open,
                Some(derecho_core::fastener::strength::TorqueStands::Usual) => FitVerdict::Good,
                Some(_) => FitVerdict::Bad,
            };
            check(
                BracketMessage::CheckName(BracketCheck::Torque),
                verdict,
                BoltUpMessage::Reference { usual, stands },
            )
        });
        self.fits(form).into_iter().chain(torque).collect()
    }

    /// Whether nut, hole and length are its own; its torque aside, which its sheet rules.
    fn fits(&self, form: Option<&FastenerForm>) -> Vec<FitCheck> {
        let Some(thread) = &self.thread else { return Vec::new() };
        let length = form.and_then(|form| self.stack(form));
        let length = length.map(|stack| length_of_stack(&stack, &reckon(&stack)));
        let nut = self.nut_thread.as_ref().map(|nut| {
            let own = nut.takes(thread);
            let verdict = if own { FitVerdict::Good } else { FitVerdict::Bad };
            check(
                BracketMessage::CheckName(BracketCheck::Nut),
                verdict,
                BracketMessage::Nut { nut: nut.clone(), bolt: thread.clone(), own },
            )
        });
        let hole = self.hole.map(|hole| {
            let play = hole - self.diameter.unwrap_or(thread.diameter());
            let too_wide = play > if self.through_an_eye { defaults::EYE_PLAY } else { PLAY };
            let bad = play < Length::ZERO || too_wide;
            let verdict = if bad { FitVerdict::Bad } else { FitVerdict::Good };
            check(
                BracketMessage::CheckName(BracketCheck::Hole),
                verdict,
                BracketMessage::Hole { play, too_wide },
            )
        });
        [nut, hole, length].into_iter().flatten().collect()
    }
}

/// What a fastener of the plan is, and how many there are.
pub(super) fn named(situation: &Situation, key: &str) -> (FastenerName, Option<u32>) {
    let one_end = situation.bar.as_ref().is_some_and(|bar| bar.kind == Some(AdjusterKind::OneEnd));
    match key {
        "bar/frame-eye" => (FastenerName::FrameEye, Some(1)),
        "bar/axle-eye" => (FastenerName::AxleEye, Some(1)),
        "bar/adjuster" => (FastenerName::Adjuster, Some(1)),
        "bar/jam" if one_end => (FastenerName::JamNut, Some(1)),
        "bar/jam" => (FastenerName::JamNuts, Some(2)),
        "drag-link/clamps" => (FastenerName::DragLinkClamps, Some(2)),
        "drag-link/studs" => (FastenerName::DragLinkNuts, None),
        "sway/first-mount" => (FastenerName::FirstMount, None),
        "sway/second-mount" => (FastenerName::SecondMount, None),
        "sway/clamps" => (FastenerName::SwayClamps, Some(2)),
        "sway/pinch" => (FastenerName::Pinch, Some(2)),
        "sway/arm-eyes" => (FastenerName::ArmEyes, Some(2)),
        "sway/far-ends" => (FastenerName::FarEnds, Some(2)),
        "sway/links-jam" => (FastenerName::LinksJam, None),
        "legs/jam" => (FastenerName::LegsJam, Some(2)),
        "legs/brackets" => (FastenerName::LegsBrackets, None),
        "legs/bolts" => (FastenerName::LegsBolts, None),
        "sway/retaining" => (FastenerName::Retaining, Some(2)),
        "disconnect/studs" => (FastenerName::DisconnectStuds, Some(2)),
        "disconnect/stow" => (FastenerName::StowStuds, Some(2)),
        "brace/bracket-end" => (FastenerName::BraceAtBracket, None),
        "brace/rail-end" => (FastenerName::BraceAtRail, None),
        "tie-rod/studs" => (FastenerName::TieRodNuts, Some(2)),
        "tie-rod/clamps" => (FastenerName::TieRodClamps, Some(2)),
        "straps/frame-ends" => (FastenerName::StrapsAtFrame, Some(2)),
        "straps/axle-ends" => (FastenerName::StrapsAtAxle, Some(2)),
        _ => of_a_bracket(situation, key).unwrap_or_else(|| (FastenerName::Typed(key.to_owned()), None)),
    }
}

/// Bolts of a bracket, by their key.
fn of_a_bracket(situation: &Situation, key: &str) -> Option<(FastenerName, Option<u32>)> {
    let end = if key.starts_with("frame/") { BracketEnd::Frame } else { BracketEnd::Axle };
    let (_, word) = key.rsplit_once('/')?;
    let bolts = Bolts::ALL.into_iter().find(|bolts| bolts.word() == word)?;
    let bracket = situation.at(end).and_then(|work| work.bracket.as_ref()).map(|part| part.name.clone());
    let count = (bolts == Bolts::Main).then_some(1);
    Some((FastenerName::Bracket { bolts, bracket }, count))
}

impl FastenerName {
    /// As the keys of acceptances have it.
    #[must_use]
    pub fn in_gate_keys(&self) -> String {
        match self {
            Self::FrameEye => gate_keys::FRAME_EYE,
            Self::AxleEye => gate_keys::AXLE_EYE,
            Self::Adjuster => gate_keys::ADJUSTER,
            Self::JamNut => gate_keys::JAM_NUT,
            Self::JamNuts => gate_keys::JAM_NUTS,
            Self::DragLinkClamps => gate_keys::DRAG_LINK_CLAMPS,
            Self::DragLinkNuts => gate_keys::DRAG_LINK_NUTS,
            Self::FirstMount => gate_keys::FIRST_MOUNT,
            Self::SecondMount => gate_keys::SECOND_MOUNT,
            Self::SwayClamps => gate_keys::SWAY_CLAMPS,
            Self::Pinch => gate_keys::PINCH,
            Self::ArmEyes => gate_keys::ARM_EYES,
            Self::FarEnds => gate_keys::FAR_ENDS,
            Self::LinksJam => gate_keys::LINKS_JAM,
            Self::LegsJam => gate_keys::LEGS_JAM,
            Self::LegsBrackets => gate_keys::LEGS_BRACKETS,
            Self::LegsBolts => gate_keys::LEGS_BOLTS,
            Self::Retaining => gate_keys::RETAINING,
            Self::DisconnectStuds => gate_keys::DISCONNECT_STUDS,
            Self::StowStuds => gate_keys::STOW_STUDS,
            Self::BraceAtBracket => gate_keys::BRACE_AT_BRACKET,
            Self::BraceAtRail => gate_keys::BRACE_AT_RAIL,
            Self::TieRodNuts => gate_keys::TIE_ROD_NUTS,
            Self::TieRodClamps => gate_keys::TIE_ROD_CLAMPS,
            Self::StrapsAtFrame => gate_keys::STRAPS_AT_FRAME,
            Self::StrapsAtAxle => gate_keys::STRAPS_AT_AXLE,
            Self::Typed(name) => name,
            Self::Bracket { bolts, bracket } => {
                let bracket = bracket.as_deref().unwrap_or(gate_keys::BRACKET);
                return gate_keys::bracket_bolts(bolts.word(), bracket);
            }
        }
        .to_owned()
    }
}

/// Keys of the fasteners of a plan, in the order in which they are made tight, a person's own behind them.
pub(super) fn keys<'a>(job: &'a Job, tasks: &[Task]) -> Vec<&'a str> {
    let planned = tasks.iter().flat_map(|task| task.tightens.iter().copied());
    let own =
        job.bolt_up.fasteners.iter().map(|form| form.key.as_str()).filter(|key| key.starts_with("own/"));
    planned.chain(own).collect()
}

/// Whether nut, hole and length of one are its own.
pub(super) fn fits(job: &Job, key: &str) -> Vec<FitCheck> {
    KnownFastener::of(job, key).fits(job.bolt_up.fastener(key))
}

/// Whether the torque that one was to have is from memory alone.
pub(super) fn is_from_memory(job: &Job, key: &str) -> bool {
    let struck = job.bolt_up.fastener(key).is_some_and(|form| !form.struck.trim().is_empty());
    let known = KnownFastener::of(job, key);
    !struck && known.torque.is_some() && known.source == Some(TorqueSource::FromMemory)
}

/// How tight one is.
pub(super) fn tightness(job: &Job, key: &str) -> Tightness {
    let Some(form) = job.bolt_up.fastener(key) else { return Tightness::Open };
    if !form.struck.trim().is_empty() {
        return Tightness::Struck;
    }
    let Some(tight) = &form.tight else { return Tightness::Open };
    let Some(made) = tight.torque.as_ref().map(TorqueEntry::torque) else { return Tightness::ByFeel };
    match KnownFastener::of(job, key).wanted() {
        Some(wanted) if (made - wanted).abs() > wanted * AS_WANTED => Tightness::OtherThanWanted,
        _ => Tightness::Tight,
    }
}

/// Every fastener.
pub(super) fn lines(job: &Job, situation: &Situation, tasks: &[Task]) -> Vec<FastenerLine> {
    keys(job, tasks)
        .into_iter()
        .map(|key| {
            let form = job.bolt_up.fastener(key);
            let known = KnownFastener::of(job, key);
            let own = form.map(|form| form.name.trim()).filter(|name| !name.is_empty());
            let (name, count) = named(situation, key);
            let name = own.map_or(name, |own| FastenerName::Typed(own.to_owned()));
            let tightness = tightness(job, key);
            let tight = form.and_then(|form| form.tight.as_ref());
            let tight_says = tight.map(|tight| match tight.torque.as_ref().map(TorqueEntry::torque) {
                None => BoltUpMessage::ByFeel { because: tight.by_feel_because.clone() }.into(),
                Some(made) => {
                    let wanted = known.wanted().filter(|_| tightness == Tightness::OtherThanWanted);
                    BoltUpMessage::TorqueMade { made, wanted }.into()
                }
            });
            let torque_says = known.torque.as_ref().map_or_else(
                || BoltUpMessage::TorqueMissing.into(),
                |torque| {
                    BoltUpMessage::TorqueWanted {
                        moment: torque.torque(),
                        typed: (torque.text()).to_owned(),
                        from: known.source,
                    }
                    .into()
                },
            );
            FastenerLine {
                name: BoltUpMessage::Fastener(name).into(),
                count: if own.is_some() { None } else { count },
                what: BoltUpMessage::What(known.what(form)).into(),
                torque_says,
                checks: known.checks(form),
                drawn: drawn(job, key, &known),
                tightness,
                tight_says,
                key: key.to_owned(),
            }
        })
        .collect()
}
