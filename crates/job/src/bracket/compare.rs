//! Bars side by side, the eye's bolt, the built bar: estimates for comparison, and what they
//! leave out.

use crate::document::check::{FieldError, asks};
use derecho_core::bar::strength::{
    BarStrength, Material, Section, bar_load, dead_band, in_compression, slip_load, thread_root_share,
};
use derecho_core::measure::{Force, Heading, Length, Mass, Meaning, Step, TapeEntry, Working};
use serde::Serialize;
use utoipa::ToSchema;

use super::fit::eyes;
use super::message::BuildStep;
use super::stack;
use crate::assembly::weights::axle_weight;
use crate::bracket::carried::factor;
use crate::bracket::message::BracketMessage;
use crate::document::bracketing::EyeBolt;
use crate::document::{BarId, Job, gate_keys, length_of};
use crate::message::{Label, Message};
use crate::setups::{PlannedGap, Setups};
use crate::verdict::FitCheck;
use derecho_core::bar::FrontView;
use derecho_core::bar::adjuster::AdjusterKind;
use derecho_core::bar::builder::{BuilderBar, built};
use derecho_core::measure::phrase::Value;
use derecho_core::parts::{BarPart, USUAL_OUTSIDE, USUAL_WALL};

/// A bar against the load it carries here.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BarComparison {
    /// What it is called.
    pub name: String,
    /// What it is made of, in words.
    pub made_of: Message,
    /// Length it needs here.
    pub length_mm: Length,
    /// Whether it reaches that length.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub reaches: Option<bool>,
    /// Load on it P = n·W·L/h, N.
    pub load_n: f64,
    /// Compression it stands by Perry's formula, N.
    pub critical_n: f64,
    /// The second over the first.
    pub margin: f64,
    /// Mass eye to eye, kg.
    pub mass_kg: f64,
    /// Its mass in words.
    pub mass_says: Message,
    /// Root area of its thread over the area of its body, where its thread is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub thread_root_share: Option<f64>,
    /// In one sentence.
    pub says: Message,
    /// With this job's numbers.
    pub working: Working,
}

/// The bolt through an eye.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BoltResult {
    /// What it holds by friction, N, ± a quarter.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub slip_n: Option<f64>,
    /// Dead band at the tyre, end to end.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub dead_band_mm: Option<Length>,
    /// In words.
    pub says: Vec<Message>,
    /// Nut, hole, length and torque, as far as they were measured.
    pub checks: Vec<FitCheck>,
    /// From the parts on it to its length, where they were measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub working: Option<Working>,
}

/// A bar built to length.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct BuilderResult {
    /// What to cut.
    pub bar: BuilderBar,
    /// Centre to centre less the length that centring wants with the plan that is meant; absent
    /// where the built bar is all there is.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub off_wanted_mm: Option<Length>,
    /// Whether the gap is measured once more in the planned holes.
    pub tapes_again: bool,
    /// What to look at where that is more than counts as centred.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub remark: Option<Message>,
    /// In words.
    pub says: Message,
    /// The order of work.
    #[schema(value_type = Vec<String>)]
    pub order: Vec<Label>,
    /// With this job's numbers.
    pub working: Working,
}

/// The bar as found, as a part.
fn as_found(job: &Job) -> BarPart {
    BarPart {
        name: gate_keys::BAR_AS_FOUND.to_owned(),
        adjuster: job.setups.found.adjuster.kind,
        made_min: job.setups.found.adjuster.made_min.clone(),
        made_max: job.setups.found.adjuster.made_max.clone(),
        thread: job.setups.found.adjuster.first.thread.clone(),
        outside: job.hardpoints.bar.diameter.clone(),
        bend: job.hardpoints.bar.bend.as_ref().map(|bend| bend.offset.clone()),
        ..BarPart::default()
    }
}

/// All bars of a job at the length the chosen or best view needs.
#[must_use]
pub fn bars(job: &Job, view: &FrontView) -> Vec<BarComparison> {
    let found = as_found(job);
    std::iter::once(&found).chain(&job.bracket.bars).map(|part| compare(job, view, part)).collect()
}

/// What people call a bar, and what it stands over its load; None where its
/// thickness was not measured.
pub(super) fn margin(job: &Job, view: &FrontView, bar: &BarId) -> Option<(String, f64)> {
    let found = as_found(job);
    let part = if bar.is_empty() { &found } else { job.bar_part(bar)? };
    part.outside.as_ref()?;
    Some((part.name.clone(), Loaded::of(job, view, part).strength.margin))
}

/// A bar against the load it carries at a view's length.
struct Loaded {
    weight: Force,
    n: f64,
    load: Force,
    section: Section,
    bend: Length,
    strength: BarStrength,
}

impl Loaded {
    fn of(job: &Job, view: &FrontView, part: &BarPart) -> Self {
        let (weight, n) = (axle_weight(job), factor(job));
        let load = bar_load(weight, n, view.length(), view.reach());
        let section = section(part);
        let bend = length_of(&part.bend).unwrap_or(Length::ZERO);
        let strength = in_compression(&section, part.material, view.length(), bend, load);
        Self { weight, n, load, section, bend, strength }
    }
}

/// The arithmetic of a bar's strength; `bend` is the bend's offset.
fn strength_steps(
    (weight, n, load): (Force, f64, Force),
    view: &FrontView,
    (section, bend): (&Section, Length),
    strength: &BarStrength,
) -> Vec<Step> {
    let number = |value: f64, decimals| Value::Number(value, decimals);
    vec![
        Step::new(
            Meaning::BarLoad,
            "P = {n} · {W} · {L} / {h}",
            &[
                ("n", number(n, 1)),
                ("W", number(weight.to_n(), 0)),
                ("L", Value::Length(view.length())),
                ("h", Value::Length(view.reach())),
            ],
            number(load.to_n(), 0),
        ),
        Step::new(
            Meaning::EulerStress,
            "σ_e = {P_e} / {A}",
            &[("P_e", number(strength.euler_n, 0)), ("A", number(section.area(), 1))],
            number(strength.euler_n / section.area(), 1),
        ),
        Step::new(
            Meaning::Eccentricity,
            "η = ({b} + {L}/1000) · {A} / {Z}",
            &[
                ("b", number(bend.to_mm(), 1)),
                ("L", number(view.length().to_mm(), 1)),
                ("A", number(section.area(), 1)),
                ("Z", number(section.modulus(), 1)),
            ],
            number((bend.to_mm() + view.length().to_mm() / 1000.0) * section.area() / section.modulus(), 3),
        ),
        Step::new(
            Meaning::CompressionMargin,
            "margin = {critical} / {P}",
            &[("critical", number(strength.critical_n, 0)), ("P", number(load.to_n(), 0))],
            number(strength.margin, 2),
        ),
    ]
}

fn compare(job: &Job, view: &FrontView, part: &BarPart) -> BarComparison {
    let Loaded { weight, n, load, section, bend, strength } = Loaded::of(job, view, part);
    let share = part.thread.as_ref().map(|t| thread_root_share(t.diameter(), t.pitch(), &section));
    let steps = strength_steps((weight, n, load), view, (&section, bend), &strength);
    BarComparison {
        name: part.name.clone(),
        made_of: BracketMessage::MadeOf { material: part.material, section, assumed: part.outside.is_none() }
            .into(),
        length_mm: view.length(),
        reaches: part.covers(view.length()),
        load_n: load.to_n(),
        critical_n: strength.critical_n,
        margin: strength.margin,
        mass_kg: strength.mass_kg,
        mass_says: BracketMessage::Mass { mass: Mass::from_kg(strength.mass_kg) }.into(),
        thread_root_share: share,
        says: BracketMessage::Stands {
            margin: strength.margin,
            load,
            bend,
            sleeve: part.adjuster == Some(AdjusterKind::Turnbuckle),
        }
        .into(),
        working: Working { title: Heading::Strength { part: part.name.clone() }, steps },
    }
}

fn section(part: &BarPart) -> Section {
    if part.material == Material::ColdRolledSolid || part.material == Material::Forged {
        return Section { outside: length_of(&part.outside).unwrap_or(USUAL_OUTSIDE), wall: None };
    }
    let tube = part.section();
    Section { wall: tube.wall.or(Some(USUAL_WALL)), ..tube }
}

/// The eye's bolt; None where nothing was said of it.
#[must_use]
pub fn bolt(job: &Job, view: &FrontView) -> Option<BoltResult> {
    let load = bar_load(axle_weight(job), factor(job), view.length(), view.reach());
    let eyes = eyes(job);
    let holds = |form: &EyeBolt| {
        let (thread, torque) = form.thread.as_ref().zip(form.torque.as_ref())?;
        Some(slip_load(torque.torque(), form.treatment.nut_factor(), thread.diameter()))
    };
    // Of two eyes the one that holds less decides.
    let bolts = eyes.iter().map(|end| end.map_or(&job.bracket.bolt, |end| job.bracket.bolt_at(end)));
    let slip = bolts.filter_map(holds).min_by(|a, b| a.to_n().total_cmp(&b.to_n()));
    let band = length_of(&job.bracket.bolt.play).map(|play| dead_band(play, view.length(), view.reach()));
    let mut says = Vec::new();
    if let Some(slip) = slip {
        says.push(BracketMessage::Slip { slip, load }.into());
    }
    if let Some(band) = band.filter(|band| *band > Length::ZERO) {
        says.push(BracketMessage::Play { band }.into());
    }
    let checks: Vec<FitCheck> = eyes.iter().flat_map(|end| stack::checks(job, *end)).collect();
    let working = eyes.iter().find_map(|end| stack::working(job, *end));
    (!says.is_empty() || !checks.is_empty()).then_some(BoltResult {
        slip_n: slip.map(Force::to_n),
        dead_band_mm: band,
        says,
        checks,
        working,
    })
}

/// The arithmetic of a built bar: the gap, both shells, the stock.
fn builder_steps(bar: &BuilderBar, (gap, frame, axle, stock): (Length, Length, Length, Length)) -> Vec<Step> {
    let length = Value::Length;
    let saddle = |meaning: Meaning, shell: Length, result: Length| {
        Step::new(
            meaning,
            "({D} − √({D}² − {q}²)) / 2",
            &[("D", length(shell)), ("q", length(stock))],
            length(result),
        )
    };
    vec![
        saddle(Meaning::FrameSaddle, frame, bar.frame_saddle_mm),
        saddle(Meaning::AxleSaddle, axle, bar.axle_saddle_mm),
        Step::new(
            Meaning::StockCut,
            "{gap} + {s_frame} + {s_axle}",
            &[
                ("gap", length(gap)),
                ("s_frame", length(bar.frame_saddle_mm)),
                ("s_axle", length(bar.axle_saddle_mm)),
            ],
            length(bar.cut_mm),
        ),
        Step::new(
            Meaning::CentreToCentre,
            "{gap} + {D_frame}/2 + {D_axle}/2",
            &[("gap", length(gap)), ("D_frame", length(frame)), ("D_axle", length(axle))],
            length(bar.length_mm),
        ),
    ]
}

/// The built bar; None where nothing was measured for it, a fault where it cannot be.
pub(super) fn builder(
    job: &Job,
    wanted: Length,
    setups: &Setups,
) -> (Option<BuilderResult>, Option<FieldError>) {
    let form = &job.bracket.builder;
    let moves_an_eye = setups.plan.moves != setups.base.moves;
    let again = setups.known.built && moves_an_eye;
    let taped = form.gap_in_new_holes.as_ref().filter(|_| again);
    let gap = taped.cloned().or_else(|| form.gap.clone());
    let all = [&gap, &form.frame_shell, &form.axle_shell, &form.stock];
    let [Some(gap), Some(frame), Some(axle), Some(stock)] =
        all.map(|entry| entry.as_ref().map(TapeEntry::length))
    else {
        let begun = all.iter().any(|entry| entry.is_some());
        let ask = asks::BUILT_BAR;
        return (None, begun.then(|| FieldError::new("/bracket/builder", "missing", ask)));
    };
    let to_tape = again && taped.is_none();
    // What the gap will be about, by the holes: to buy the stock by, not to cut by.
    let gap = if to_tape { wanted - (frame + axle) / 2.0 } else { gap };
    let bar = match built(gap, frame, axle, stock) {
        Ok(bar) => bar,
        Err(fault) => {
            let reported = asks::cannot_be_built(fault);
            return (None, Some(FieldError::new("/bracket/builder/stock", "cannot_be_built", reported)));
        }
    };
    let steps = builder_steps(&bar, (gap, frame, axle, stock));
    let off = (!to_tape && (again || !setups.known.built)).then_some(bar.length_mm - wanted);
    // What counts as centred, as a change of length.
    let slack = setups.tolerance * (setups.base.view.reach() / setups.base.view.length());
    let remark = match setups.gap {
        PlannedGap::TapeAgain => Some(BracketMessage::TapeTheGap.into()),
        PlannedGap::Disagrees { off, wanted, .. } => Some(BracketMessage::GapIsOff { off, wanted }.into()),
        PlannedGap::Taped(_) => None,
        PlannedGap::None => {
            off.filter(|off| off.abs() > slack).map(|off| BracketMessage::GapIsOff { off, wanted }.into())
        }
    };
    let result = BuilderResult {
        off_wanted_mm: off,
        remark,
        tapes_again: again,
        says: if to_tape {
            BracketMessage::StockAbout { cut: bar.cut_mm, length: bar.length_mm }.into()
        } else {
            BracketMessage::CutStock { cut: bar.cut_mm, length: bar.length_mm }.into()
        },
        order: BuildStep::ALL.map(|step| BracketMessage::BuildStep(step).into()).to_vec(),
        working: Working { title: Heading::GapToCut, steps },
        bar,
    };
    (Some(result), None)
}
