//! The planner: every hole with every bar at every height, ranked and explained, and the
//! schools side by side.

use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::assembly::Workbench;
use crate::assembly::weights::assumed_loads;
use crate::bar::{self, Views};
use crate::bracket::compare::{self, BarComparison, BoltResult, BuilderResult, LEAVES_OUT};
use crate::bracket::fit;
use crate::bracket::load::{self, LoadResult};
use crate::bracket::school::{SchoolResult, schools};
use crate::cycle::{cycle as job_cycle, words};
use crate::document::Job;
use crate::document::bracketing::{PlanForm, Target};
use crate::document::check::FieldError;
use crate::document::heights;
use crate::setups::moves::{self, EyeMoves};
use crate::tape;
use crate::tape::SheetResult;
use crate::usual::Assumption;
use crate::verdict::{FitCheck, FitVerdict};
use derecho_core::bar::FrontView;
use derecho_core::bar::adjuster::AdjusterKind;
use derecho_core::measure::phrase::{Value, degrees};
use derecho_core::measure::{Angle, Length, Phrase, Side, Step, TapeEntry, Working};
use derecho_core::parts::{BarPart, BracketEnd, BracketPart};
use derecho_core::pose::cycle;
use derecho_core::pose::joint::JointKind;
use derecho_core::pose::mechanism::{Level, Mechanism, Member};

/// Steps of the sweep every option is checked on.
const CHECK_STEPS: usize = 20;
/// At or under this angle at the driven height a length alone is enough (default of this
/// program).
pub const ENOUGH_DEGREES: f64 = 5.0;
/// What an option's name says for the bar as found.
pub const BAR_AS_FOUND: &str = "the bar as found";

/// Everything stage Bracket answers.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PlanResult {
    /// The answer in one sentence.
    pub says: Phrase,
    /// Why, in this job's numbers.
    pub because: Phrase,
    /// What keeps it from an answer.
    pub missing: Vec<FieldError>,
    /// What is aimed at.
    pub target: Target,
    /// Exact riser that meets the target, + up; and the exact drop, + down.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub exact_riser_mm: Option<Length>,
    /// The exact move in words.
    pub exact_says: Phrase,
    /// How the exact move is worked out.
    pub working: Working,
    /// Every option, best first; failing ones last with their reasons.
    pub options: Vec<OptionResult>,
    /// The schools, each with its best plan.
    pub schools: Vec<SchoolResult>,
    /// The hole that will be right at each other height.
    pub other_heights: Vec<Phrase>,
    /// Bars side by side at the length they need.
    pub bars: Vec<BarComparison>,
    /// What the strength figures leave out.
    pub leaves_out: String,
    /// The eye's bolt, where something was said of it.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bolt: Option<BoltResult>,
    /// A built bar, where it was measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub builder: Option<BuilderResult>,
    /// Fit before welding.
    pub fit: Vec<FitCheck>,
    /// A Y-link conversion, checked; empty for other axles.
    pub conversion: Vec<FitCheck>,
    /// Weights and heights nobody measured.
    pub assumptions: Vec<Assumption>,
    /// What the claim that a longer bar makes it worse comes to, where it is longer.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub longer_says: Option<Phrase>,
}

/// An option at another height.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OptionAtHeight {
    /// The height's name.
    pub name: String,
    /// Whether it is the driven one.
    pub driven: bool,
    /// Bar angle there.
    pub angle_deg: Angle,
    /// To the left per unit of bump.
    pub lateral_rate: f64,
    /// Swing over the travel that remains from there.
    pub peak_to_peak_mm: Length,
}

/// One hole with one bar.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OptionResult {
    /// The plan, by names.
    pub plan: PlanForm,
    /// The hole in words: `riser, hole 2`, `no bracket`.
    pub name: String,
    /// The bar in words.
    pub bar: String,
    /// Which eye is moved; absent where none is.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub end: Option<BracketEnd>,
    /// Move of the eye: mm forward, left, up.
    pub move_mm: [f64; 3],
    /// The frame eye in the end view's coordinates: mm left, up, at the driven height.
    pub frame_eye_mm: [f64; 2],
    /// The axle eye, with the axle centred.
    pub axle_eye_mm: [f64; 2],
    /// Rank, from 1; nought for a bracket that is only reckoned.
    pub rank: usize,
    /// Bar angle at the driven height, + frame end higher.
    pub angle_deg: Angle,
    /// Angle that is aimed to be nought: at the target's height, or against the drag link.
    pub off_target_deg: Angle,
    /// To the left per unit of bump at the driven height.
    pub lateral_rate: f64,
    /// Shift to the left at full droop.
    pub at_full_droop_mm: Length,
    /// Shift at full bump.
    pub at_full_bump_mm: Length,
    /// Sideways swing over the travel.
    pub peak_to_peak_mm: Length,
    /// Roll centre above the ground, from the bar's line.
    pub roll_centre_mm: Length,
    /// Its change from as found.
    pub roll_centre_change_mm: Length,
    /// Length that centres the axle.
    pub length_mm: Length,
    /// Its change from the bar as found.
    pub change_mm: Length,
    /// Whether this bar can be so long; absent where its range is not known.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub covered: Option<bool>,
    /// What is left over in the nearest step of its adjuster, + too short.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub leftover_mm: Option<Length>,
    /// The joint that tilts most over the travel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub worst_tilt_deg: Option<Angle>,
    /// The least gap of the bar over the travel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub least_gap_mm: Option<Length>,
    /// Bar angle less drag-link angle.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub drag_link_difference_deg: Option<Angle>,
    /// Most bump steer over the travel.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub bump_steer_deg: Option<Angle>,
    /// What it loads.
    pub loads: LoadResult,
    /// Why it fails, each with its reason; empty where it does not.
    pub fails: Vec<Phrase>,
    /// What to mind besides.
    pub minds: Vec<Phrase>,
    /// At every height.
    pub heights: Vec<OptionAtHeight>,
    /// Whether it is the chosen plan.
    pub chosen: bool,
    /// Whether it is kept beside it.
    pub kept: bool,
}

/// A hole of a bracket with the move it makes; none is the eye where it is.
type Candidate<'a> = (&'a BracketPart, &'a str, Option<(BracketEnd, DVec3)>);

/// A bar with what it is as a body.
pub(crate) struct BarCandidate {
    pub(crate) name: String,
    pub(crate) part: Option<BarPart>,
    pub(crate) member: Member,
}

/// What every option is worked out from.
pub(crate) struct Shop<'a> {
    pub(crate) job: &'a Job,
    pub(crate) bench: &'a Workbench,
    pub(crate) views: &'a Views,
    pub(crate) side: Side,
    pub(crate) found: Mechanism,
    pub(crate) bars: Vec<BarCandidate>,
}

fn without(missing: Vec<FieldError>, job: &Job) -> PlanResult {
    PlanResult {
        says: Phrase::plain("Nothing can be planned yet"),
        because: Phrase::default(),
        missing,
        target: job.bracket.target,
        exact_riser_mm: None,
        exact_says: Phrase::default(),
        working: Working::default(),
        options: Vec::new(),
        schools: Vec::new(),
        other_heights: Vec::new(),
        bars: Vec::new(),
        leaves_out: LEAVES_OUT.to_owned(),
        bolt: None,
        builder: None,
        fit: Vec::new(),
        conversion: Vec::new(),
        assumptions: Vec::new(),
        longer_says: None,
    }
}

/// A job without a bar: what is left to plan is the conversion that took it out.
fn converted(job: &Job, sheets: &[SheetResult], missing: Vec<FieldError>) -> PlanResult {
    let checks = fit::conversion(job, sheets, &job_cycle(job), &heights::table(&job.rig, None, None));
    let bad = checks.iter().filter(|check| check.verdict == FitVerdict::Bad).count();
    let open = checks.iter().filter(|check| check.verdict == FitVerdict::Open).count();
    let says = match (bad, open) {
        (0, 0) => "The Y-link is right".to_owned(),
        (0, open) => format!("The Y-link is right so far, {open} to check"),
        (bad, _) => format!("{bad} of the Y-link's checks fail"),
    };
    PlanResult {
        says: Phrase::plain(&says),
        because: Phrase::plain(
            "A Y-shaped upper link centres the axle over all the travel it can follow. There is no bar to level.",
        ),
        conversion: checks,
        ..without(missing, job)
    }
}

/// Plans a job. Never fails: what is missing stands in its place.
#[must_use]
pub fn plan(job: &Job) -> PlanResult {
    let sheets = tape::results(job);
    let outcome = bar::bar(job, &sheets);
    if outcome.missing.iter().any(|fault| fault.code == "no_bar") {
        return converted(job, &sheets, outcome.missing);
    }
    let Some(views) = outcome.views else { return without(outcome.missing, job) };
    let Some(side) = job.rig.frame_eye_side else { return without(outcome.missing, job) };
    let bench = match Workbench::new(job, Some(&views)) {
        Ok(bench) => bench,
        Err(missing) => return without(missing, job),
    };
    let Some(member) = bench.bar_member().cloned() else { return without(outcome.missing, job) };
    let found = match bench.candidate(EyeMoves::default(), &member, [0.0; 2]) {
        Ok((found, _)) => found,
        Err(fault) => {
            let told =
                FieldError::new("/hardpoints", "impossible_geometry", format!("As measured, {fault}."));
            return without(vec![told], job);
        }
    };
    let shop = Shop { job, bench: &bench, views: &views, side, found, bars: bar_candidates(job, &member) };
    let exact = shop.exact_riser();
    let mut options = shop.options();
    options.sort_by(|a, b| shop.rank(a).partial_cmp(&shop.rank(b)).unwrap_or(std::cmp::Ordering::Equal));
    for (index, option) in options.iter_mut().enumerate() {
        option.rank = index + 1;
    }
    let schools = schools(&shop, &options, exact);
    let (says, because) = crate::bracket::school::answer(&options, &schools, exact);
    let bar = outcome.result.as_ref();
    let pick = options.iter().find(|option| option.chosen).or(options.first());
    let moved = pick.and_then(|o| o.end.map(|end| EyeMoves::of(end, DVec3::from_array(o.move_mm))));
    let view = shop.view(moved.unwrap_or_default()).unwrap_or(views.found);
    let setting = bar.and_then(|bar| bar.correction.as_ref()?.setting.as_ref());
    let thread_allows = setting.map_or((None, None), |setting| (setting.shortest_mm, setting.longest_mm));
    let (builder, unbuilt) = compare::builder(job);
    PlanResult {
        bars: compare::bars(job, &view),
        leaves_out: LEAVES_OUT.to_owned(),
        bolt: compare::bolt(job, &view),
        builder,
        fit: fit::checks(job, pick, thread_allows),
        conversion: Vec::new(),
        assumptions: assumed_loads(job),
        says,
        because,
        missing: unbuilt.into_iter().collect(),
        target: job.bracket.target,
        exact_riser_mm: exact,
        exact_says: exact.map_or_else(Phrase::default, exact_words),
        working: shop.exact_working(exact),
        other_heights: shop.other_heights(&options),
        longer_says: bar.and_then(|bar| bar.correction.as_ref()?.longer_says.clone()),
        options,
        schools,
    }
}

fn exact_words(riser: Length) -> Phrase {
    Phrase::of(|w| {
        let (axle, frame) = if riser > Length::ZERO { ("up", "down") } else { ("down", "up") };
        format!(
            "Exactly on target: axle eye {} {axle}, or frame eye {} {frame}.",
            w.distance(riser),
            w.distance(riser)
        )
    })
}

fn bar_candidates(job: &Job, member: &Member) -> Vec<BarCandidate> {
    let found = BarCandidate { name: String::new(), part: None, member: member.clone() };
    let made = job.bracket.bars.iter().map(|part| {
        let joint = |kind: JointKind, bolt| derecho_core::pose::mechanism::Joint {
            kind,
            bolt,
            limits: kind.limits(),
        };
        BarCandidate {
            name: part.name.clone(),
            member: Member {
                name: "track bar".to_owned(),
                joints: [
                    joint(part.frame_joint, member.joints[0].bolt),
                    joint(part.axle_joint, member.joints[1].bolt),
                ],
                radius: part.section().outside / 2.0,
                bend: None,
            },
            part: Some(part.clone()),
        }
    });
    std::iter::once(found).chain(made).collect()
}

impl Shop<'_> {
    /// The bar at the driven height with the eyes moved and set to the length it needs.
    pub(crate) fn view(&self, moves: EyeMoves) -> Option<FrontView> {
        let (_, view) = self
            .views
            .found
            .recentred_moved(self.views.found_offset, moves.rise(), moves.fore_aft(), moves.sideways())
            .ok()?;
        Some(view)
    }

    pub(crate) fn travel_from_driven(&self) -> (Length, Length) {
        let (droop, bump) = heights::travel(&self.job.rig);
        let driven = -heights::driven_offset(&self.job.rig);
        (droop + driven, bump - driven)
    }

    fn drag_angle(&self) -> Option<Angle> {
        let (link, _) = self.bench.drag_link()?;
        let ride = self.found.at_ride_height().ok()?;
        Some(link.front_view(self.bench.axle_height(), &ride.solved.pose).0)
    }

    /// Travel from the driven height at which the bar should be level.
    fn level_at(&self) -> Length {
        let (droop, bump) = self.travel_from_driven();
        match self.job.bracket.target {
            Target::LevelMidTravel => (bump - droop) / 2.0,
            Target::LevelDriven | Target::ParallelToDragLink => Length::ZERO,
        }
    }

    /// r with v − r = t* (level), or v − r = h·tan θ_drag (parallel to the drag link).
    fn exact_riser(&self) -> Option<Length> {
        let view = self.view(EyeMoves::default())?;
        let wanted = match self.job.bracket.target {
            Target::ParallelToDragLink => {
                let drag = self.drag_angle()?;
                view.reach() * drag.tan()
            }
            Target::LevelDriven | Target::LevelMidTravel => self.level_at(),
        };
        Some(view.rise() - wanted)
    }

    fn exact_working(&self, exact: Option<Length>) -> Working {
        let (Some(view), Some(exact)) = (self.view(EyeMoves::default()), exact) else {
            return Working::default();
        };
        let length = Value::Length;
        let step = match self.job.bracket.target {
            Target::ParallelToDragLink => Step::new(
                "riser that lays the bar parallel to the drag link",
                "r = {v} − {h} · tan {θ_drag}",
                &[
                    ("v", length(view.rise())),
                    ("h", length(view.reach())),
                    ("θ_drag", Value::Angle(self.drag_angle().unwrap_or(Angle::ZERO))),
                ],
                length(exact),
            ),
            Target::LevelDriven | Target::LevelMidTravel => Step::new(
                "riser that levels the bar at travel t* from the driven height",
                "r = {v} − {t*}",
                &[("v", length(view.rise())), ("t*", length(self.level_at()))],
                length(exact),
            ),
        };
        Working { title: "The exact riser or drop".to_owned(), steps: vec![step] }
    }

    fn options(&self) -> Vec<OptionResult> {
        let none = BracketPart::default();
        let brackets = moves::brackets(self.job);
        let mut holes: Vec<Candidate<'_>> = vec![(&none, "", None)];
        for bracket in &brackets {
            for hole in &bracket.holes {
                let by = moves::hole_move(hole, moves::side_sign(bracket.end, self.side));
                let by = moves::still(self.job, self.views.round, bracket.end, by);
                holes.push((bracket, &hole.name, Some((bracket.end, by))));
            }
        }
        let mut options = Vec::new();
        for (bracket, hole, by) in holes {
            for bar in &self.bars {
                options.extend(self.option(bracket, hole, by, bar));
            }
        }
        options
    }

    pub(crate) fn option(
        &self,
        bracket: &BracketPart,
        hole: &str,
        by: Option<(BracketEnd, DVec3)>,
        bar: &BarCandidate,
    ) -> Option<OptionResult> {
        let moves = by.map_or(EyeMoves::default(), |(end, by)| EyeMoves::of(end, by));
        let view = self.view(moves)?;
        let (droop, bump) = self.travel_from_driven();
        let swing = view.swing(droop, bump);
        let plan = PlanForm {
            bracket: bracket.name.clone(),
            hole: hole.to_owned(),
            bar: bar.name.clone(),
            drag_link: String::new(),
        };
        let drag_link = self.best_drag_link(view.angle());
        let plan = PlanForm {
            drag_link: drag_link.as_ref().map(|(name, _)| name.clone()).unwrap_or_default(),
            ..plan
        };
        let raised = moves::drag_link_raise(self.job, &plan.drag_link);
        let mut fails = Vec::new();
        let mut minds = Vec::new();
        let checked = match self.bench.candidate(moves, &bar.member, raised) {
            Ok((mechanism, _)) => self.check(&mechanism, &mut fails, &mut minds),
            Err(fault) => {
                fails.push(Phrase::plain(&format!("as measured, {fault}")));
                Checked::default()
            }
        };
        let covered = self.covers(bar, view.length(), &mut fails);
        let drag_link_difference = drag_link.map(|(_, difference)| difference);
        let roll_centre = self.roll_centre(&view, moves);
        let before = self.roll_centre(&self.views.found, EyeMoves::default());
        let off_target = match self.job.bracket.target {
            Target::ParallelToDragLink => drag_link_difference.unwrap_or(view.angle()),
            Target::LevelDriven | Target::LevelMidTravel => view.angle_at(self.level_at()),
        };
        let name = if hole.is_empty() {
            "no bracket".to_owned()
        } else if moves::is_now(&bracket.name) {
            hole.to_owned()
        } else {
            format!("{}, {hole}", bracket.name)
        };
        let eyes = self.eyes(moves);
        let same = |other: &PlanForm| {
            (&other.bracket, &other.hole, &other.bar) == (&plan.bracket, &plan.hole, &plan.bar)
        };
        Some(OptionResult {
            name,
            bar: if bar.name.is_empty() { BAR_AS_FOUND.to_owned() } else { bar.name.clone() },
            end: by.map(|(end, _)| end),
            move_mm: by.map_or([0.0; 3], |(_, by)| by.to_array()),
            frame_eye_mm: eyes.0,
            axle_eye_mm: eyes.1,
            rank: 0,
            angle_deg: view.angle(),
            off_target_deg: off_target,
            lateral_rate: view.lateral_rate(),
            at_full_droop_mm: swing.at_full_droop_mm,
            at_full_bump_mm: swing.at_full_bump_mm,
            peak_to_peak_mm: swing.peak_to_peak_mm,
            roll_centre_mm: roll_centre,
            roll_centre_change_mm: roll_centre - before,
            length_mm: view.length(),
            change_mm: view.length() - self.views.found.length(),
            covered,
            leftover_mm: self.leftover(bar, view.length()),
            worst_tilt_deg: checked.tilt.map(Angle::from_radians),
            least_gap_mm: checked.gap.map(Length::from_mm),
            drag_link_difference_deg: drag_link_difference,
            bump_steer_deg: checked.steer.map(Angle::from_radians),
            loads: load::loads(self, &view, moves, bracket),
            fails,
            minds,
            heights: self.at_heights(&view),
            chosen: self.job.bracket.chosen.as_ref().is_some_and(same),
            kept: self.job.bracket.kept.iter().any(same),
            plan,
        })
    }

    /// Both eyes with the moves made, frame eye first.
    fn eyes(&self, moves: EyeMoves) -> ([f64; 2], [f64; 2]) {
        let Some(link) = self.bench.bar_link() else { return Default::default() };
        let (frame, axle) = (link.body.moved(moves.frame).to_mm(), link.axle.moved(moves.axle).to_mm());
        let up = heights::driven_offset(&self.job.rig).to_mm();
        ([frame[1], frame[2] + up], [axle[1], axle[2]])
    }

    fn at_heights(&self, view: &FrontView) -> Vec<OptionAtHeight> {
        let driven = heights::driven_offset(&self.job.rig);
        heights::table(&self.job.rig, None, None)
            .into_iter()
            .filter_map(|height| {
                let there = view.raised_by(height.offset_mm - driven).ok()?;
                let swing = there.swing(height.droop_left_mm, height.bump_left_mm);
                Some(OptionAtHeight {
                    name: height.name,
                    driven: height.driven,
                    angle_deg: there.angle(),
                    lateral_rate: there.lateral_rate(),
                    peak_to_peak_mm: swing.peak_to_peak_mm,
                })
            })
            .collect()
    }

    /// Where the bar's line crosses the middle, above the ground, at the driven height.
    pub(crate) fn roll_centre(&self, view: &FrontView, moves: EyeMoves) -> Length {
        let Some(link) = self.bench.bar_link() else { return Length::ZERO };
        let axle_z = link.axle.to_mm()[2] + moves.axle.z;
        let frame_y = link.body.to_mm()[1] + moves.frame.y;
        let axle_y = frame_y - view.reach().to_mm() * self.side.sign();
        Length::from_mm(axle_z + view.rise().to_mm() * -axle_y / (frame_y - axle_y))
    }

    /// The drag-link part, or none, that lays the link nearest to the bar, and what is left.
    fn best_drag_link(&self, angle: Angle) -> Option<(String, Angle)> {
        let (link, _) = self.bench.drag_link()?;
        let ride = self.found.at_ride_height().ok()?;
        let out = link.pitman - ride.solved.pose.place(self.bench.axle_height(), link.knuckle);
        let mm = |entry: &Option<TapeEntry>| entry.as_ref().map_or(0.0, |e| e.length().to_mm());
        let parts = self
            .job
            .bracket
            .drag_links
            .iter()
            .map(|part| (part.name.clone(), mm(&part.raises_axle_end) + mm(&part.drops_pitman_end)));
        std::iter::once((String::new(), 0.0))
            .chain(parts)
            .map(|(name, less)| (name, angle - Angle::from_radians((out.z - less).atan2(out.y.abs()))))
            .min_by(|a, b| a.1.abs().to_radians().total_cmp(&b.1.abs().to_radians()))
    }

    /// Whether a bar can be so long, with the reason where not.
    fn covers(&self, bar: &BarCandidate, length: Length, fails: &mut Vec<Phrase>) -> Option<bool> {
        match &bar.part {
            Some(part) => {
                let covered = part.covers(length)?;
                if !covered {
                    let (least, most) = (part.made_min.as_ref()?.length(), part.made_max.as_ref()?.length());
                    fails.push(Phrase::of(|w| {
                        format!(
                            "the bar would have to be {}, but it is made from {} to {}",
                            w.fine(length),
                            w.distance(least),
                            w.distance(most)
                        )
                    }));
                }
                Some(covered)
            }
            None => {
                let adjuster = &self.job.setups.adjuster;
                if adjuster.kind == Some(AdjusterKind::Fixed) {
                    let same = (length - self.views.found.length()).abs() < Length::from_mm(1.0);
                    if !same {
                        fails.push(Phrase::of(|w| {
                            format!("the bar as found is fixed and would have to be {}", w.fine(length))
                        }));
                    }
                    return Some(same);
                }
                let least = adjuster.made_min.as_ref()?.length();
                let most = adjuster.made_max.as_ref()?.length();
                let covered = least <= length && length <= most;
                if !covered {
                    fails.push(Phrase::of(|w| {
                        format!(
                            "the bar as found would have to be {}, but goes from {} to {}",
                            w.fine(length),
                            w.distance(least),
                            w.distance(most)
                        )
                    }));
                }
                Some(covered)
            }
        }
    }

    fn leftover(&self, bar: &BarCandidate, length: Length) -> Option<Length> {
        let part = bar.part.as_ref()?;
        let pitch = part.thread.as_ref()?.pitch();
        let step = match part.adjuster? {
            AdjusterKind::Turnbuckle => pitch * (2.0 / 6.0),
            AdjusterKind::OneEnd => pitch / 2.0,
            AdjusterKind::Fixed => return None,
        };
        let from = part.made_min.as_ref()?.length();
        let steps = ((length - from) / step).round();
        Some(length - from - step * steps)
    }

    fn check(&self, mechanism: &Mechanism, fails: &mut Vec<Phrase>, minds: &mut Vec<Phrase>) -> Checked {
        let stops = mechanism.stops();
        let (low, high) = (-stops.droop.to_mm(), stops.bump.to_mm());
        let Ok(poses) = cycle::line(mechanism, (low, low), (high, high), CHECK_STEPS) else {
            fails.push(Phrase::plain("the links do not reach at ride height"));
            return Checked::default();
        };
        if poses.len() <= CHECK_STEPS {
            fails.push(Phrase::plain("the bar is pulled tight before the travel ends"));
        }
        let mut checked = Checked::default();
        let mut values = Vec::new();
        let count = mechanism.watches().len();
        let mut worst: Vec<(Level, f64, f64)> = vec![(Level::Free, f64::NAN, 0.0); count];
        for posed in &poses {
            mechanism.values(posed, &mut values);
            for (index, watch) in mechanism.watches().iter().enumerate() {
                let (value, level) = (values[index], watch.level(values[index]));
                let (known_level, known, at) = worst[index];
                // Of the poses past a limit the one nearest to ride height: there it is met.
                let sooner = level == Level::Over && known_level == Level::Over;
                let take =
                    if sooner { posed.left.abs() < at.abs() } else { watch.used(value) > watch.used(known) };
                if known.is_nan() || take || level > known_level {
                    worst[index] = (level, value, posed.left);
                }
            }
        }
        for (index, watch) in mechanism.watches().iter().enumerate() {
            let (level, value, at) = worst[index];
            if watch.is_gap() && words::is_bar(mechanism, watch.what) {
                checked.gap = Some(checked.gap.map_or(value, |gap: f64| gap.min(value)));
            }
            if words::is_bar(mechanism, watch.what) && !watch.is_gap() && words::is_tilt(watch.what) {
                checked.tilt = Some(checked.tilt.map_or(value, |tilt: f64| tilt.max(value)));
            }
            if level == Level::Free {
                continue;
            }
            let what = words::happens(mechanism, watch.what, level);
            let told = Phrase::of(|w| format!("{} at {}", lowered(&what), words::place(w, at, at)));
            if level == Level::Over { fails.push(told) } else { minds.push(told) }
        }
        let ride = poses.iter().map(|p| p.steer).find(|steer| steer.is_finite());
        checked.steer = ride.map(|_| {
            let at_ride =
                poses.iter().min_by(|a, b| a.left.abs().total_cmp(&b.left.abs())).map_or(0.0, |p| p.steer);
            poses.iter().map(|p| (p.steer - at_ride).abs()).fold(0.0, f64::max)
        });
        checked
    }

    /// Failing last; then |off target| in half-degree buckets, swing, smallest bracket.
    fn rank(&self, option: &OptionResult) -> (bool, i64, i64, i64, usize) {
        let bucket = (option.off_target_deg.to_degrees().abs() / 0.5).round() as i64;
        let size = DVec3::from_array(option.move_mm).length();
        // Tenths of a millimetre: what no tape tells apart must not decide.
        let tenths = |mm: f64| (mm * 10.0).round() as i64;
        let bar = self.bars.iter().position(|bar| bar.name == option.plan.bar).unwrap_or(0);
        (!option.fails.is_empty(), bucket, tenths(option.peak_to_peak_mm.to_mm()), tenths(size), bar)
    }

    /// Which hole is nearest to level at each height but the driven one.
    fn other_heights(&self, options: &[OptionResult]) -> Vec<Phrase> {
        let Some(first) = options.first() else { return Vec::new() };
        first
            .heights
            .iter()
            .enumerate()
            .filter(|(_, height)| !height.driven)
            .filter_map(|(index, height)| {
                let best = options.iter().filter(|option| option.fails.is_empty()).min_by(|a, b| {
                    let off = |o: &OptionResult| o.heights[index].angle_deg.abs();
                    off(a).to_radians().total_cmp(&off(b).to_radians())
                })?;
                let angle = best.heights[index].angle_deg;
                Some(Phrase::plain(&format!("At {}: {}, {} there.", height.name, best.name, degrees(angle))))
            })
            .collect()
    }
}

fn lowered(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_lowercase().chain(letters).collect())
}

/// What the sweep found.
#[derive(Default)]
struct Checked {
    tilt: Option<f64>,
    gap: Option<f64>,
    steer: Option<f64>,
}
