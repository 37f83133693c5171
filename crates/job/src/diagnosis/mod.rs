//! Why it is as it is: every suspect, and pairs of the likelier, held against all figures at once, the complaints and what
//! was seen; ranked, with what to look at next.
//!
//! `figures` gathers what was measured, `effect` says what each suspect does to it, `tables` what practice knows
//! beforehand, `next` what to look at. Not here: the sentences; and what it does to the job, which is settled by `findings`.

mod effect;
mod figures;
mod hypothesis;
pub mod message;
mod next;
mod tables;

use derecho_core::measure::Length;
use derecho_core::measure::suspicion::{Suspicion, log_sum};
use serde::Serialize;
use utoipa::ToSchema;

use self::effect::Vehicle;
pub use self::figures::FigureKind;
use self::figures::{Gathered, gather};
use self::hypothesis::{Hypothesis, share_of};
use self::message::DiagnosisMessage;
pub use self::next::NextCheck;
pub(crate) use self::tables::{looks_for, still_seen};
use crate::cautions::Stage;
use crate::document::diagnosis::{QuickCheck, Suspect};
use crate::document::{ComplaintAbout, ComplaintAfter, Job};
use crate::message::Message;
use crate::setups::Resolved;

/// How likely a vehicle that somebody brings has nothing wrong; and one with a fault a second one.
const NOTHING_WRONG: f64 = 0.12;
const TWO_FAULTS: f64 = 0.15;
/// Of how many of the likeliest pairs are made.
const PAIRED: usize = 6;
/// From this share on it can be told.
const TOLD: f64 = 0.85;
/// What is less likely is not shown, and no more than so many.
const SHOWN: f64 = 0.02;
const MOST_SHOWN: usize = 6;
/// From this share on it is told how large it is.
const SIZED: f64 = 0.1;
/// Figures ask why where a suspect explains them so many times as well as nothing.
const FAR_BETTER: f64 = 10.0;
/// What is known explains a complaint that is so likely for it.
const EXPLAINED: f64 = 0.25;
/// How much a complaint that nobody made says, against one that was.
const SILENCE: f64 = 0.5;

/// A suspect, ranked.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RankedSuspect {
    /// Which.
    pub suspect: Suspect,
    /// How likely, 0 to 1, alone or with another.
    #[serde(serialize_with = "derecho_core::measure::figure::exactly")]
    pub share: f64,
    /// By its name, with how large it is.
    pub says: Message,
    /// Why it would explain what is seen.
    pub because: Message,
    /// What is done about it.
    pub mend: Message,
    /// The screen on which it is put right.
    pub stage: Stage,
    /// How large, where the figures say so: + up, longer.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub size_mm: Option<Length>,
    /// How large, of what has a side: + to the left, or longer or lower on the left.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub sideways_mm: Option<Length>,
    /// What that is good to, U.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub uncertainty_mm: Option<Length>,
}

/// A figure that was held against the suspects.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct WeighedFigure {
    /// What it is of.
    pub says: Message,
    /// By how much it differs from what it should be.
    pub differs: Message,
    /// What is left of that once the likeliest suspect has explained what it does.
    pub remains: Message,
}

/// A cause that somebody confirmed.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ConfirmedCause {
    /// Which.
    pub suspect: Suspect,
    /// In words.
    pub says: Message,
    /// What is done about it.
    pub mend: Message,
    /// Whether it is mended.
    pub mended: bool,
}

/// The search for a cause.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DiagnosisResult {
    /// In one sentence.
    pub says: Message,
    /// Whether the likeliest can be told.
    pub told: bool,
    /// How likely nothing is wrong, 0 to 1.
    #[serde(serialize_with = "derecho_core::measure::figure::exactly")]
    pub nothing_share: f64,
    /// The likelier suspects, the likeliest first.
    pub suspects: Vec<RankedSuspect>,
    /// What to look at next, what divides them most for its minutes first.
    pub next: Vec<NextCheck>,
    /// What was seen so far, in words, in the document's order.
    pub seen: Vec<Message>,
    /// Every figure it rests on.
    pub figures: Vec<WeighedFigure>,
    /// Causes that somebody confirmed.
    pub confirmed: Vec<ConfirmedCause>,
}

/// What is known of the axle without looking for a fault, and explains a complaint by itself.
#[derive(Clone, Copy, Debug, Default)]
struct Stands {
    /// How far off it was measured last, mm, without its side.
    off: f64,
    /// The bar's slope, its rise by its reach, without its sign.
    slope: f64,
}

impl Stands {
    fn of(resolved: &Resolved) -> Self {
        let newest = resolved.sheets.iter().rev().filter(|sheet| sheet.usable);
        let off = newest
            .filter_map(|sheet| sheet.centring.as_ref())
            .map(|found| found.offset_mm.abs().to_mm())
            .next();
        let view = resolved.measured_setups().map(|setups| setups.fitted.view);
        Self { off: off.unwrap_or(0.0), slope: view.map_or(0.0, |view| view.lateral_rate().abs()) }
    }

    /// How likely a driver complains of that for it: a tire that stands out is seen, a steep bar is felt over bumps.
    fn explains(self, about: ComplaintAbout) -> f64 {
        match about {
            ComplaintAbout::OffCentre => (self.off / 14.0).powi(2).min(0.8),
            ComplaintAbout::SideStepping => ((self.slope - 0.08) / 0.2).clamp(0.0, 0.7),
            _ => 0.0,
        }
    }
}

/// What everything is held against.
struct Evidence<'a> {
    vehicle: Vehicle<'a>,
    gathered: Option<Gathered>,
    /// What is complained of and still there.
    complaints: Vec<ComplaintAbout>,
    seen: Vec<(QuickCheck, bool)>,
    /// Where the axle is known to be, and how steep the bar.
    stands: Stands,
    suspects: Vec<Suspect>,
}

/// Searches for the cause; None where there is nothing to search for: no complaint that says what it is about, nothing
/// looked at, no axle that moved otherwise than predicted (`moved_otherwise`), and no figure that some suspect explains far
/// better than nothing.
#[must_use]
pub fn diagnosis(job: &Job, resolved: &Resolved, moved_otherwise: bool) -> Option<DiagnosisResult> {
    let causes = &job.diagnosis.causes;
    let confirmed: Vec<ConfirmedCause> =
        causes.iter().map(|cause| said_of(cause.what, cause.mended.is_some())).collect();
    if let Some(open) = confirmed.iter().find(|cause| !cause.mended) {
        let says = DiagnosisMessage::Confirmed(open.suspect).into();
        return Some(DiagnosisResult { confirmed, says, ..nothing_more(job) });
    }
    let evidence = Evidence::of(job, resolved);
    let asked = moved_otherwise || !evidence.complaints.is_empty() || !evidence.seen.is_empty();
    if !asked && !evidence.figures_ask() {
        let says = confirmed.last().map(|cause| DiagnosisMessage::Mended(cause.suspect).into())?;
        return Some(DiagnosisResult { confirmed, says, ..nothing_more(job) });
    }
    let hypotheses = evidence.hypotheses();
    let nothing: f64 = hypotheses.iter().filter(|one| one.faults[0].is_none()).map(|one| one.share).sum();
    let ranked = evidence.ranked(&hypotheses);
    let next = next::next(job, &evidence.suspects, &hypotheses);
    let (says, told) = headline(&ranked, nothing, evidence.explained());
    Some(DiagnosisResult {
        says,
        told,
        nothing_share: nothing,
        next,
        figures: evidence.weighed(ranked.first().map(|first| first.suspect)),
        suspects: ranked,
        confirmed,
        ..nothing_more(job)
    })
}

/// A cause that was confirmed, in words.
fn said_of(suspect: Suspect, mended: bool) -> ConfirmedCause {
    let says = if mended { DiagnosisMessage::Mended(suspect) } else { DiagnosisMessage::Confirmed(suspect) };
    ConfirmedCause { suspect, says: says.into(), mend: DiagnosisMessage::Mend(suspect).into(), mended }
}

fn nothing_more(job: &Job) -> DiagnosisResult {
    let seen = job.diagnosis.checks.iter();
    DiagnosisResult {
        says: Message::NOTHING,
        told: false,
        nothing_share: 0.0,
        suspects: Vec::new(),
        next: Vec::new(),
        seen: seen.map(|made| DiagnosisMessage::Seen { check: made.what, seen: made.seen }.into()).collect(),
        figures: Vec::new(),
        confirmed: Vec::new(),
    }
}

fn headline(ranked: &[RankedSuspect], nothing: f64, explained: Option<ComplaintAbout>) -> (Message, bool) {
    let Some(first) = ranked.first().filter(|first| first.share > nothing) else {
        return (DiagnosisMessage::NothingPoints { explained }.into(), false);
    };
    let told = first.share >= TOLD;
    let near = ranked.get(1).filter(|second| !told && second.share > first.share / 2.0);
    let rival = near.map(|second| second.suspect);
    let says = DiagnosisMessage::Likeliest { suspect: first.suspect, share: first.share, told, rival };
    (says.into(), told)
}

impl<'a> Evidence<'a> {
    fn of(job: &'a Job, resolved: &'a Resolved) -> Self {
        let vehicle = Vehicle::new(job, resolved);
        let mended = job.diagnosis.causes.iter().any(|cause| cause.mended.is_some());
        let still_there = |after: Option<ComplaintAfter>| match after {
            Some(after) => matches!(after, ComplaintAfter::Same | ComplaintAfter::Worse),
            None => !mended,
        };
        let mut complaints: Vec<ComplaintAbout> = job
            .complaints
            .iter()
            .filter(|complaint| still_there(complaint.after))
            .filter_map(|complaint| complaint.about)
            .collect();
        complaints.dedup();
        let seen = QuickCheck::ALL.into_iter().filter_map(|check| Some((check, still_seen(job, check)?)));
        let found = |suspect: Suspect| job.diagnosis.causes.iter().any(|cause| cause.what == suspect);
        let suspects =
            Suspect::ALL.into_iter().filter(|suspect| vehicle.can_be(*suspect) && !found(*suspect)).collect();
        Self {
            vehicle,
            gathered: gather(job, resolved, mended),
            complaints,
            seen: seen.collect(),
            stands: Stands::of(resolved),
            suspects,
        }
    }

    /// What the figures say of a suspect; None without figures.
    fn suspicion(&self, suspect: Suspect) -> Option<Suspicion> {
        let Gathered { kinds, figures, .. } = self.gathered.as_ref()?;
        figures.suspicion(&self.vehicle.effects(suspect, false, kinds))
    }

    /// Whether the figures by themselves ask why: some suspect explains them far better than nothing does.
    fn figures_ask(&self) -> bool {
        let nothing = self.of_figures([None, None]);
        self.suspects
            .iter()
            .any(|suspect| self.of_figures([Some(*suspect), None]) - nothing > FAR_BETTER.ln())
    }

    fn of_figures(&self, faults: [Option<Suspect>; 2]) -> f64 {
        let Some(Gathered { kinds, figures, .. }) = &self.gathered else { return 0.0 };
        match faults {
            [Some(one), Some(other)] => {
                let [one, other] = [one, other].map(|suspect| self.vehicle.effects(suspect, true, kinds));
                figures.suspicion_beside(&one, &other).map_or(f64::NEG_INFINITY, |found| found.log_evidence)
            }
            [Some(one), None] => {
                self.suspicion(one).map_or(f64::NEG_INFINITY, |suspicion| suspicion.log_evidence)
            }
            _ => figures.log_density(),
        }
    }

    fn known(&self, about: ComplaintAbout) -> f64 {
        self.stands.explains(about)
    }

    /// The complaint that what is known explains, where one does.
    fn explained(&self) -> Option<ComplaintAbout> {
        self.complaints.iter().copied().find(|about| self.known(*about) > EXPLAINED)
    }

    /// What complaints, silence about others, and quick checks say.
    fn of_people(&self, faults: [Option<Suspect>; 2]) -> f64 {
        let hypothesis = Hypothesis { faults, share: 0.0 };
        let complained = if self.complaints.is_empty() {
            0.0
        } else {
            ComplaintAbout::ALL
                .iter()
                .map(|about| {
                    let chance = hypothesis.complains(*about, self.known(*about));
                    if self.complaints.contains(about) { chance.ln() } else { (1.0 - chance).ln() * SILENCE }
                })
                .sum()
        };
        let seen: f64 = self
            .seen
            .iter()
            .map(|(check, seen)| {
                let chance = hypothesis.shows(*check);
                if *seen { chance.ln() } else { (1.0 - chance).ln() }
            })
            .sum();
        complained + seen
    }

    /// Everything that may be the matter with its share: nothing, each suspect alone, pairs of the likelier.
    fn hypotheses(&self) -> Vec<Hypothesis> {
        let all: f64 = self.suspects.iter().map(|suspect| tables::frequency(*suspect)).sum();
        let prior = |suspect: Suspect| tables::frequency(suspect) / all;
        let weighed = |faults: [Option<Suspect>; 2], prior: f64| {
            (faults, prior.ln() + self.of_people(faults) + self.of_figures(faults))
        };
        let alone = (1.0 - NOTHING_WRONG) * (1.0 - TWO_FAULTS);
        let mut logs = vec![weighed([None, None], NOTHING_WRONG)];
        let mut singles: Vec<_> = self
            .suspects
            .iter()
            .map(|suspect| weighed([Some(*suspect), None], alone * prior(*suspect)))
            .collect();
        singles.sort_by(|one, other| other.1.total_cmp(&one.1));
        let likely: Vec<Suspect> = singles.iter().take(PAIRED).filter_map(|(faults, _)| faults[0]).collect();
        logs.extend(singles);
        let two = (1.0 - NOTHING_WRONG) * TWO_FAULTS * 2.0;
        for (place, one) in likely.iter().enumerate() {
            for other in &likely[place + 1..] {
                logs.push(weighed([Some(*one), Some(*other)], two * prior(*one) * prior(*other)));
            }
        }
        let sum = log_sum(&logs.iter().map(|(_, log)| *log).collect::<Vec<_>>());
        logs.into_iter().map(|(faults, log)| Hypothesis { faults, share: (log - sum).exp() }).collect()
    }

    fn ranked(&self, hypotheses: &[Hypothesis]) -> Vec<RankedSuspect> {
        let mut shares: Vec<(Suspect, f64)> =
            self.suspects.iter().map(|suspect| (*suspect, share_of(hypotheses, *suspect))).collect();
        shares.sort_by(|one, other| other.1.total_cmp(&one.1));
        let shown = shares.into_iter().filter(|(_, share)| *share >= SHOWN).take(MOST_SHOWN);
        shown.map(|(suspect, share)| self.ranked_one(suspect, share, hypotheses)).collect()
    }

    /// How large a suspect is, and what that is good to, U: by itself and beside whatever may be with it, each as likely as
    /// it is.
    fn size(&self, suspect: Suspect, hypotheses: &[Hypothesis]) -> Option<(Length, Length)> {
        let Gathered { kinds, figures, .. } = self.gathered.as_ref()?;
        let effects = self.vehicle.effects(suspect, false, kinds);
        let all = share_of(hypotheses, suspect);
        let with = hypotheses.iter().filter(|one| one.has(suspect) && one.share > all / 20.0);
        let found: Vec<(f64, Suspicion)> = with
            .filter_map(|one| {
                let other = one.faults.into_iter().flatten().find(|other| *other != suspect);
                let found = match other {
                    None => figures.suspicion(&effects),
                    Some(other) => {
                        figures.suspicion_beside(&effects, &self.vehicle.effects(other, true, kinds))
                    }
                };
                Some((one.share, found?))
            })
            .collect();
        let sum: f64 = found.iter().map(|(share, _)| share).sum();
        let mean = found.iter().map(|(share, found)| share * found.mean).sum::<f64>() / sum;
        let square = |(share, found): &(f64, Suspicion)| {
            share * (found.deviation.powi(2) + (found.mean - mean).powi(2))
        };
        let deviation = (found.iter().map(square).sum::<f64>() / sum).sqrt();
        let told = has_size(suspect) && mean.abs() > 2.0 * deviation;
        told.then(|| (Length::from_mm(mean), Length::from_mm(2.0 * deviation)))
    }

    fn ranked_one(&self, suspect: Suspect, share: f64, hypotheses: &[Hypothesis]) -> RankedSuspect {
        // What is unlikely is named, and not measured.
        let size = if share > SIZED { self.size(suspect, hypotheses) } else { None };
        RankedSuspect {
            suspect,
            share,
            says: DiagnosisMessage::Suspected { suspect, size }.into(),
            because: DiagnosisMessage::Because(suspect).into(),
            mend: DiagnosisMessage::Mend(suspect).into(),
            stage: tables::stage(suspect),
            size_mm: size.filter(|_| !has_a_side(suspect)).map(|(size, _)| size),
            sideways_mm: size.filter(|_| has_a_side(suspect)).map(|(size, _)| size),
            uncertainty_mm: size.map(|(_, good_to)| good_to),
        }
    }

    /// Every figure, and what is left of it under the likeliest suspect at its likeliest size.
    fn weighed(&self, suspect: Option<Suspect>) -> Vec<WeighedFigure> {
        let Some(Gathered { kinds, differences, figures }) = &self.gathered else { return Vec::new() };
        let best = suspect.and_then(|suspect| {
            let effects =
                self.vehicle.effects(suspect, false, kinds).into_iter().map(|(size, effect)| {
                    (figures.log_density_under(&effect) + size.weight.ln(), effect.shift)
                });
            effects.max_by(|one, other| one.0.total_cmp(&other.0)).map(|(_, shift)| shift)
        });
        // What an axle was off by as it came in is nobody's fault: offsets are told from the first one.
        let first = kinds.iter().position(|kind| matches!(kind, FigureKind::Offset { .. }));
        let from_first = |kind: &FigureKind, of: &[f64]| match (kind, first) {
            (FigureKind::Offset { .. }, Some(first)) => of.get(first).copied().unwrap_or(0.0),
            _ => 0.0,
        };
        let none = vec![0.0; kinds.len()];
        let shift = best.unwrap_or(none);
        let rows = kinds.iter().zip(differences).zip(&shift).enumerate();
        rows.filter(|(place, _)| Some(*place) != first)
            .map(|(_, ((kind, differs), shifted))| {
                let differs = differs - from_first(kind, differences);
                let explained = shifted - from_first(kind, &shift);
                WeighedFigure {
                    says: DiagnosisMessage::Figure(*kind).into(),
                    differs: DiagnosisMessage::Amount { kind: *kind, value: differs }.into(),
                    remains: DiagnosisMessage::Amount { kind: *kind, value: differs - explained }.into(),
                }
            })
            .collect()
    }
}

/// Whether its size is to one side, and the other way in a mirror.
const fn has_a_side(suspect: Suspect) -> bool {
    !matches!(
        suspect,
        Suspect::AnotherHeight
            | Suspect::FrameBracketHeight
            | Suspect::AxleBracketHeight
            | Suspect::LengthOff
            | Suspect::BarBent
    )
}

/// Whether a size of it is anything to go by.
const fn has_size(suspect: Suspect) -> bool {
    !matches!(
        suspect,
        Suspect::FullDifference
            | Suspect::SignTurned
            | Suspect::MeasuredHanging
            | Suspect::OtherHole
            | Suspect::HousingBent
            | Suspect::ArmOnOtherSpline
            | Suspect::ArmOverCenter
            | Suspect::DragLinkNotParallel
            | Suspect::TrackBarHits
            | Suspect::ShocksTired
            | Suspect::SlopingFloor
            | Suspect::BoltLoose
            | Suspect::BushingTorn
            | Suspect::BracketTearing
            | Suspect::TiresUnlike
    )
}
