//! The planner: every hole with every bar at every height, checked and ranked.

use crate::bracket::carried::LoadSays;
use derecho_core::measure::{Angle, AngleEntry, Heading, Length, Meaning, Side, Step, TapeEntry, Working};
use std::cell::RefCell;
use std::rc::Rc;

use derecho_core::bar::FrontView;
use derecho_core::bar::adjuster::{AdjusterKind, facts_within};
use derecho_core::bar::bracket_load::UsedHow;
use derecho_core::measure::phrase::Value;
use derecho_core::parts::{BracketEnd, BracketPart};
use derecho_core::pose::mechanism::{Level, Mechanism, Posed};
use derecho_core::pose::travel;
use glam::DVec3;

use super::carried::{self, LoadResult, Loaded};
use super::names::{BarName, PlaceName};
use super::option::{OptionAtHeight, OptionResult};
use crate::assembly::{ReadJob, SolvedBar};
use crate::bar::{heights, travel_left};
use crate::bracket::message::BracketMessage;
use crate::cycle::limit::{CrossedAt, Happening, is_bar, is_tilt};
use crate::document::bracketing::Target;
use crate::document::{BarId, DragLinkId, HoleChoice, Job, LengthAim, PlanForm, heights as rig_heights};
use crate::message::Message;
use crate::setups::moves::{self, EyeMoves};
use crate::setups::{BarState, Setups};

/// Steps of the sweep every option is checked on.
const CHECK_STEPS: usize = 20;

/// A bar with what it is as a body.
pub(super) struct BarCandidate {
    /// By which plans point at it; empty is the one that is in.
    pub(super) id: BarId,
    /// What people call it.
    pub(super) shown: BarName,
    pub(super) state: BarState,
    pub(super) body: SolvedBar,
}

/// A place for the eyes: a plan's holes, with the moves they make from where the eyes are now.
pub(super) struct Candidate {
    pub(super) form: PlanForm,
    pub(super) name: PlaceName,
    pub(super) bracket: BracketPart,
    pub(super) end: Option<BracketEnd>,
    pub(super) moves: EyeMoves,
}

/// How an option's length is meant.
#[derive(Clone, Copy, PartialEq, Eq)]
pub(super) enum LengthPolicy {
    /// Set to what centres the axle, or to what the chosen plan says of it.
    Set,
    /// Left as it is, whatever becomes of the axle.
    Left,
}

/// What every option is worked out from.
pub(super) struct Planner<'a> {
    pub(super) job: &'a Job,
    pub(super) bench: &'a ReadJob<'a>,
    pub(super) setups: &'a Setups,
    pub(super) side: Side,
    /// From the drag link's knuckle end to its pitman end at the driven height, as it is now.
    pub(super) drag_out: Option<DVec3>,
    pub(super) bars: Vec<BarCandidate>,
    /// Every sweep so far.
    pub(super) sweeps: RefCell<Vec<Sweep>>,
}

/// The bar that is in, then every other of the job.
pub(super) fn bar_candidates(job: &Job, setups: &Setups) -> Vec<BarCandidate> {
    let here = &setups.base.bar;
    let shown = BarName::of(&here.name);
    let body = SolvedBar::of(job, &here.id);
    let now = BarCandidate { id: BarId::default(), shown, state: here.clone(), body };
    let others = job.bracket.bars.iter().filter(|part| part.id != here.id).map(|part| BarCandidate {
        id: part.id.clone(),
        shown: BarName::of(&part.name),
        state: BarState::new(part, setups.base.view.length()),
        body: SolvedBar::of(job, &part.id),
    });
    std::iter::once(now).chain(others).collect()
}

impl Planner<'_> {
    /// The bar at the driven height with the eyes moved and set to the length that centres it; the
    /// bar as it is where nothing is to be set.
    pub(super) fn view(&self, moves: EyeMoves) -> Option<FrontView> {
        match self.setups.wanted_with(moves, &self.setups.base.bar) {
            Some(wanted) => Some(wanted.view),
            None => moves.is_none().then_some(self.setups.base.view),
        }
    }

    /// The drag link's angle at the driven height as a bar would have it that leans alike, with its
    /// ends brought nearer by a part, mm up: + where the end on the frame eye's side is the higher one.
    fn drag_angle_less(&self, less: f64) -> Option<Angle> {
        let out = self.drag_out?;
        let angle = Angle::from_radians((out.z - less).atan2(out.y.abs()));
        Some(if Side::of(out.y) == self.side { angle } else { -angle })
    }

    fn drag_angle(&self) -> Option<Angle> {
        self.drag_angle_less(0.0)
    }

    /// Travel from the driven height at which the bar should be level.
    fn level_at(&self) -> Length {
        let (droop, bump) = travel_left(self.job);
        match self.job.bracket.target {
            Target::LevelMidTravel => (bump - droop) / 2.0,
            Target::LevelDriven | Target::ParallelToDragLink | Target::AsTheMakerHadIt => Length::ZERO,
        }
    }

    /// The angle that the maker had, where that is the target.
    fn stock_angle(&self) -> Option<Angle> {
        let wanted = self.job.bracket.target == Target::AsTheMakerHadIt;
        self.job.bracket.stock_angle.as_ref().filter(|_| wanted).map(AngleEntry::angle)
    }

    /// r with v − r = t* (level), or v − r = h·tan θ_drag (parallel to the drag link).
    pub(super) fn exact_riser(&self) -> Option<Length> {
        let view = self.view(EyeMoves::default())?;
        let wanted = match self.job.bracket.target {
            Target::ParallelToDragLink => {
                let drag = self.drag_angle()?;
                view.reach() * drag.tan()
            }
            Target::AsTheMakerHadIt => view.reach() * self.stock_angle()?.tan(),
            Target::LevelDriven | Target::LevelMidTravel => self.level_at(),
        };
        Some(view.rise() - wanted)
    }

    pub(super) fn exact_working(&self, exact: Option<Length>) -> Working {
        let (Some(view), Some(exact)) = (self.view(EyeMoves::default()), exact) else {
            return Working::default();
        };
        let length = Value::Length;
        let step = match self.job.bracket.target {
            Target::ParallelToDragLink => Step::new(
                Meaning::RiserParallel,
                "r = {v} − {h} · tan {θ_drag}",
                &[
                    ("v", length(view.rise())),
                    ("h", length(view.reach())),
                    ("θ_drag", Value::Angle(self.drag_angle().unwrap_or(Angle::ZERO))),
                ],
                length(exact),
            ),
            Target::AsTheMakerHadIt => Step::new(
                Meaning::RiserAsStock,
                "r = {v} − {h} · tan {θ_stock}",
                &[
                    ("v", length(view.rise())),
                    ("h", length(view.reach())),
                    ("θ_stock", Value::Angle(self.stock_angle().unwrap_or(Angle::ZERO))),
                ],
                length(exact),
            ),
            Target::LevelDriven | Target::LevelMidTravel => Step::new(
                Meaning::RiserLevel,
                "r = {v} − {t*}",
                &[("v", length(view.rise())), ("t*", length(self.level_at()))],
                length(exact),
            ),
        };
        Working { title: Heading::ExactRiser, steps: vec![step] }
    }

    /// The places there are: where the eyes are now, every hole, and both together where a plan
    /// that is chosen or kept has both.
    fn candidates(&self) -> Vec<Candidate> {
        let mut all = vec![Candidate {
            form: PlanForm::default(),
            name: PlaceName::NoBracket,
            bracket: BracketPart::default(),
            end: None,
            moves: EyeMoves::default(),
        }];
        for bracket in moves::brackets(self.job) {
            for hole in &bracket.holes {
                let by = moves::hole_at(self.job, bracket.end, &bracket.id, hole, self.side);
                let by = by - self.setups.base.moves.at(bracket.end);
                let choice = HoleChoice { bracket: bracket.id.clone(), hole: hole.id.clone() };
                let name = PlaceName::hole(&bracket.name, &hole.name);
                let form = match bracket.end {
                    BracketEnd::Axle => PlanForm { axle: Some(choice), ..PlanForm::default() },
                    BracketEnd::Frame => PlanForm { frame: Some(choice), ..PlanForm::default() },
                };
                let moves = EyeMoves::of(bracket.end, by);
                all.push(Candidate { form, name, bracket: bracket.clone(), end: Some(bracket.end), moves });
            }
        }
        let plans = &self.job.setups.plans;
        let followed = |plan: &&PlanForm| plan.gone.is_empty();
        for plan in plans.chosen.iter().chain(&plans.kept).filter(followed) {
            let (Some(frame), Some(axle)) = (&plan.frame, &plan.axle) else { continue };
            let Some(moved) = moves::planned(self.job, plan, self.setups.base.moves) else { continue };
            let form =
                PlanForm { frame: Some(frame.clone()), axle: Some(axle.clone()), ..PlanForm::default() };
            if all.iter().all(|other| other.form != form) {
                all.push(Candidate {
                    form,
                    name: PlaceName::Both {
                        axle: Box::new(self.hole_name(BracketEnd::Axle, axle)),
                        frame: Box::new(self.hole_name(BracketEnd::Frame, frame)),
                    },
                    bracket: self.job.bracket_part(BracketEnd::Axle, &axle.bracket).map_or_else(
                        BracketPart::default,
                        |part| BracketPart {
                            id: part.id.clone(),
                            name: part.name.clone(),
                            ..BracketPart::default()
                        },
                    ),
                    end: Some(BracketEnd::Axle),
                    moves: moved.since(self.setups.base.moves),
                });
            }
        }
        all
    }

    /// A chosen hole as people call it.
    fn hole_name(&self, end: BracketEnd, choice: &HoleChoice) -> PlaceName {
        let bracket = self.job.bracket_part(end, &choice.bracket).map_or("", |part| part.name.as_str());
        PlaceName::hole(bracket, self.job.hole_name(end, choice))
    }

    /// Every place with every bar, best first, each with its bar at the driven height. Figures at other
    /// heights are left to [`Planner::with_heights`]: of hundreds of options few are looked at.
    pub(super) fn options(&self) -> Vec<(OptionResult, FrontView)> {
        let mut options: Vec<(OptionResult, FrontView)> = self
            .candidates()
            .iter()
            .flat_map(|candidate| {
                self.bars.iter().filter_map(|bar| self.option(candidate, bar, LengthPolicy::Set))
            })
            .collect();
        options.sort_by_cached_key(|(option, _)| self.rank(option));
        for (index, (option, _)) in options.iter_mut().enumerate() {
            option.rank = index + 1;
        }
        options
    }

    /// How the length of a place with a bar is meant: so that it centres the axle, but for a chosen plan that says
    /// otherwise.
    fn aim(&self, candidate: &Candidate, bar: &BarCandidate) -> LengthAim {
        let chosen = self.job.setups.plans.chosen.as_ref().filter(|chosen| {
            (&chosen.axle, &chosen.frame, &chosen.bar)
                == (&candidate.form.axle, &candidate.form.frame, &bar.id)
        });
        chosen.map_or(LengthAim::Centred, |chosen| chosen.length)
    }

    /// An option with its figures at every height.
    pub(super) fn with_heights(&self, (option, view): (OptionResult, FrontView)) -> OptionResult {
        OptionResult { heights: self.at_heights(&view), ..option }
    }

    /// The best place for one eye with the bar's length left alone.
    pub(super) fn best_left_alone(&self, end: BracketEnd) -> Option<OptionResult> {
        let bar = self.bars.first()?;
        self.candidates()
            .iter()
            .filter(|candidate| candidate.end == Some(end) && candidate.form != PlanForm::default())
            .filter_map(|candidate| self.option(candidate, bar, LengthPolicy::Left))
            .min_by_key(|(option, _)| self.rank(option))
            .map(|found| self.with_heights(found))
    }

    pub(super) fn option(
        &self,
        candidate: &Candidate,
        bar: &BarCandidate,
        policy: LengthPolicy,
    ) -> Option<(OptionResult, FrontView)> {
        let (base, moves) = (&self.setups.base, candidate.moves);
        let tolerance = self.setups.tolerance;
        let aim = match policy {
            LengthPolicy::Set => self.aim(candidate, bar),
            LengthPolicy::Left => LengthAim::AsTheOldOne,
        };
        let wanted = self.setups.wanted_as(moves, &bar.state, aim);
        let (view, left_off) = match (policy, &wanted) {
            (LengthPolicy::Left, _) => {
                let view = base.view.moved(base.view.length(), moves.rise(), moves.fore_aft()).ok()?;
                let carried = (base.view.reach() - view.reach()) * self.side.sign() + moves.sideways();
                (view, base.offset + carried)
            }
            (LengthPolicy::Set, Some(wanted)) => {
                (wanted.view.with_length(wanted.length).ok()?, wanted.offset)
            }
            (LengthPolicy::Set, None) => (moves.is_none().then_some(base.view)?, base.offset),
        };
        let (droop, bump) = travel_left(self.job);
        let swing = view.swing(droop, bump);
        let both = candidate.form.axle.is_some() && candidate.form.frame.is_some();
        let drag_link = self.best_drag_link(view.angle(), candidate.end.filter(|_| !both));
        let plan = PlanForm {
            bar: bar.id.clone(),
            length: aim,
            drag_link: drag_link.as_ref().map(|(part, _)| part.clone()).unwrap_or_default(),
            ..candidate.form.clone()
        };
        // Without another part the one that is fitted stays.
        let link = if plan.drag_link.is_empty() { &base.drag_link } else { &plan.drag_link };
        let raised = moves::drag_link_raise(self.job, link);
        // A length that is left moves the axle: it is checked where it then stands.
        let left = (aim != LengthAim::Centred).then(|| view.length());
        let checked = self.checked((moves, left), &bar.body, raised);
        let mut fails = checked.fails.clone();
        let mut minds = checked.minds.clone();
        if !bar.id.is_empty() && bar.body.bend.is_some() {
            minds.push(BracketMessage::BendTaken.into());
        }
        let (covered, missed, leftover) = match (policy, &wanted) {
            (LengthPolicy::Set, Some(wanted)) => {
                let covered = wanted.covered(&bar.state, self.setups.reach_tolerance());
                let set = bar.state.adjuster.as_ref().map(|adjuster| {
                    facts_within(
                        adjuster,
                        bar.state.length,
                        wanted.length,
                        wanted.length_tolerance(self.setups.reach_tolerance()),
                    )
                });
                let range = match &set {
                    Some(set) if set.kind != AdjusterKind::Fixed => {
                        (set.equal_engagement_shortest_mm, set.equal_engagement_longest_mm)
                    }
                    Some(_) => (Some(bar.state.length), Some(bar.state.length)),
                    None => bar.state.range,
                };
                if covered == Some(false) {
                    fails.push(
                        BracketMessage::OutOfReach {
                            shown: bar.shown.clone(),
                            wanted: wanted.length,
                            as_found: bar.state.name.is_empty(),
                            range,
                        }
                        .into(),
                    );
                }
                if aim != LengthAim::Centred && left_off.abs() > tolerance {
                    fails.push(BracketMessage::LeftOff { offset: left_off, tolerance }.into());
                }
                let missed = range.0.map_or(Length::ZERO, |least| (least - wanted.length).max(Length::ZERO))
                    + range.1.map_or(Length::ZERO, |most| (wanted.length - most).max(Length::ZERO));
                let leftover = set.filter(|set| set.verdict.reaches() && !bar.id.is_empty());
                (covered, missed, leftover.and_then(|set| set.leftover_mm))
            }
            (LengthPolicy::Left, _) => {
                if left_off.abs() > tolerance {
                    fails.push(BracketMessage::LeftOff { offset: left_off, tolerance }.into());
                }
                (None, Length::ZERO, None)
            }
            (LengthPolicy::Set, None) => (Some(true), Length::ZERO, None),
        };
        let drag_link_difference = drag_link.map(|(_, difference)| difference);
        let roll_centre = self.roll_centre(&view, moves);
        let before = self.roll_centre(&base.view, EyeMoves::default());
        let off_target = match self.job.bracket.target {
            Target::ParallelToDragLink => drag_link_difference.unwrap_or(view.angle()),
            Target::AsTheMakerHadIt => view.angle() - self.stock_angle().unwrap_or(Angle::ZERO),
            Target::LevelDriven | Target::LevelMidTravel => view.angle_at(self.level_at()),
        };
        let eyes = self.eyes(moves);
        let same = |other: &PlanForm| {
            other.gone.is_empty()
                && (&other.axle, &other.frame, &other.bar) == (&plan.axle, &plan.frame, &plan.bar)
        };
        let both = plan.axle.is_some() && plan.frame.is_some();
        let loaded = Loaded {
            job: self.job,
            axle_height: self.bench.axle_height(),
            axle_eye: self.bench.bar_link().map(|link| Length::from_mm(link.axle.to_mm()[2])),
            side: self.side,
            roll_centre,
        };
        let loads = carried::loads(&loaded, &view, moves, &candidate.bracket);
        let option = OptionResult {
            name: BracketMessage::Place(candidate.name.clone()).into(),
            bar: BracketMessage::Bar(bar.shown.clone()).into(),
            goes_with: self.job.drag_link_name(&plan.drag_link).to_owned(),
            end: candidate.end,
            move_mm: candidate.end.map_or([0.0; 3], |end| moves.at(end).to_array()),
            frame_move_mm: both.then(|| moves.frame.to_array()),
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
            left_off_mm: left_off,
            change_mm: view.length() - base.view.length(),
            covered,
            missed_mm: missed,
            leftover_mm: leftover,
            worst_tilt_deg: checked.tilt.map(Angle::from_radians),
            least_gap_mm: checked.gap.map(Length::from_mm),
            drag_link_difference_deg: drag_link_difference,
            bump_steer_deg: checked.steer.map(Angle::from_radians),
            loads: LoadResult { says: LoadSays::of(&loads), ..loads },
            fails,
            minds,
            heights: Vec::new(),
            chosen: self.job.setups.plans.chosen.as_ref().is_some_and(same),
            kept: self.job.setups.plans.kept.iter().any(same),
            plan,
        };
        Some((option, view))
    }

    /// Both eyes with the moves made, frame eye first.
    fn eyes(&self, moves: EyeMoves) -> ([f64; 2], [f64; 2]) {
        let Some(link) = self.bench.bar_link() else { return Default::default() };
        let (frame, axle) = (link.body.moved(moves.frame).to_mm(), link.axle.moved(moves.axle).to_mm());
        let up = rig_heights::driven_offset(&self.job.rig).to_mm();
        ([frame[1], frame[2] + up], [axle[1], axle[2]])
    }

    fn at_heights(&self, view: &FrontView) -> Vec<OptionAtHeight> {
        let driven = rig_heights::driven_offset(&self.job.rig);
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

    /// The drag-link part, or none, that lays the link nearest to the bar, and what is left. A riser goes
    /// with a link raised at the knuckle, a drop with one dropped at the pitman arm.
    fn best_drag_link(&self, angle: Angle, end: Option<BracketEnd>) -> Option<(DragLinkId, Angle)> {
        self.drag_out?;
        let mm = |entry: &Option<TapeEntry>| entry.as_ref().map_or(0.0, |e| e.length().to_mm());
        let parts = self
            .job
            .bracket
            .drag_links
            .iter()
            .filter(|part| match end {
                Some(BracketEnd::Axle) => mm(&part.drops_pitman_end) == 0.0,
                Some(BracketEnd::Frame) => mm(&part.raises_axle_end) == 0.0,
                None => true,
            })
            .map(|part| {
                let lifts = mm(&part.raises_axle_end) + mm(&part.drops_pitman_end);
                (part.id.clone(), lifts - self.bench.link_lifted())
            });
        std::iter::once((DragLinkId::default(), 0.0))
            .chain(parts)
            .filter_map(|(part, less)| Some((part, angle - self.drag_angle_less(less)?)))
            .min_by(|a, b| a.1.abs().to_radians().total_cmp(&b.1.abs().to_radians()))
    }

    /// The sweep of the eyes at these places. Bars that are alike as bodies share one.
    fn checked(
        &self,
        eyes: (EyeMoves, Option<Length>),
        body: &SolvedBar,
        raised: [f64; 2],
    ) -> Rc<SweptOption> {
        let alike = |sweep: &&Sweep| (&sweep.eyes, &sweep.body, &sweep.raised) == (&eyes, body, &raised);
        if let Some(known) = self.sweeps.borrow().iter().find(alike) {
            return Rc::clone(&known.found);
        }
        let found = match self.bench.candidate(eyes, body, raised) {
            Ok((mechanism, _)) => check(&mechanism),
            Err(fault) => SweptOption {
                fails: vec![BracketMessage::AsMeasured { fault: fault.to_string().to_owned() }.into()],
                ..SweptOption::default()
            },
        };
        let found = Rc::new(found);
        let sweep = Sweep { eyes, body: body.clone(), raised, found: Rc::clone(&found) };
        self.sweeps.borrow_mut().push(sweep);
        found
    }

    /// Failing last; then |off target| and what the brackets carry for it in half-degree buckets, swing, smallest bracket,
    /// and of bars that do not reach the nearest first. A moment that is doubled is worth a degree in hard use and a third
    /// of one on the road: steel that breaks is a worse match than a bar that leans.
    pub(super) fn rank(&self, option: &OptionResult) -> (bool, i64, i64, i64, i64, usize) {
        let carried = option.loads.axle_moment_ratio.max(option.loads.frame_moment_ratio).max(1.0);
        let hard = option.loads.factor / UsedHow::Hard.factor();
        let bucket =
            ((option.off_target_deg.to_degrees().abs() + hard * carried.log2()) / 0.5).round() as i64;
        let size = DVec3::from_array(option.move_mm).length();
        // Tenths of a millimetre: what no tape tells apart must not decide.
        let tenths = |mm: f64| (mm * 10.0).round() as i64;
        let bar = self.bars.iter().position(|bar| bar.id == option.plan.bar).unwrap_or(0);
        (
            !option.fails.is_empty(),
            bucket,
            tenths(option.peak_to_peak_mm.to_mm()),
            tenths(size),
            tenths(option.missed_mm.to_mm()),
            bar,
        )
    }

    /// Which hole is nearest to level at each height but the driven one.
    pub(super) fn other_heights(&self, options: &[(OptionResult, FrontView)]) -> Vec<Message> {
        let driven = rig_heights::driven_offset(&self.job.rig);
        heights::table(&self.job.rig, None, None)
            .into_iter()
            .filter(|height| !height.driven)
            .filter_map(|height| {
                let (best, angle) = options
                    .iter()
                    .filter(|(option, _)| option.fails.is_empty())
                    // A height that an option's bar cannot reach is not among its own.
                    .filter_map(|(option, view)| {
                        let there = view.raised_by(height.offset_mm - driven).ok()?;
                        Some((option, there.angle()))
                    })
                    .min_by(|a, b| a.1.abs().to_radians().total_cmp(&b.1.abs().to_radians()))?;
                Some(
                    BracketMessage::OtherHeight {
                        height: height.name.clone(),
                        name: best.name.clone(),
                        angle,
                    }
                    .into(),
                )
            })
            .collect()
    }
}

/// What each watched figure comes to over some poses; None where there is none.
fn worst_of<'a>(mechanism: &Mechanism, all: &[&'a Posed]) -> Vec<Option<WorstFound<'a>>> {
    let far = |travel: f64| (travel - mechanism.driven()).abs();
    let mut values = Vec::new();
    let mut worst: Vec<Option<WorstFound<'a>>> = vec![None; mechanism.watches().len()];
    for posed in all {
        mechanism.values(posed, &mut values);
        for (index, watch) in mechanism.watches().iter().enumerate() {
            let (value, level) = (values[index], watch.level(values[index]));
            let found = worst[index].get_or_insert(WorstFound { level, worst: value, met: posed });
            // Of the poses past a limit the one nearest to the driven height; of the others the worst.
            let sooner = level == Level::Violated && far(posed.left) < far(found.met.left);
            let worse = watch.used(value) > watch.used(found.worst);
            if level > found.level
                || (level == found.level && if level == Level::Violated { sooner } else { worse })
            {
                found.met = posed;
            }
            found.level = found.level.max(level);
            if worse {
                found.worst = value;
            }
        }
    }
    worst
}

fn check(mechanism: &Mechanism) -> SweptOption {
    let stops = mechanism.stops();
    let far = |travel: f64| (travel - mechanism.driven()).abs();
    let (low, high) = (-stops.droop.to_mm(), stops.bump.to_mm());
    let span = (high - low) / CHECK_STEPS as f64;
    let Ok(poses) = travel::line(mechanism, (low, low), (high, high), CHECK_STEPS) else {
        return SweptOption {
            fails: vec![BracketMessage::OutOfReachAtRide.into()],
            ..SweptOption::default()
        };
    };
    let mut checked = SweptOption::default();
    if poses.len() <= CHECK_STEPS {
        checked.fails.push(BracketMessage::PulledTight.into());
    }
    // Where it stands is one of the poses: what is past a limit there is met there.
    let mut all: Vec<&Posed> = poses.iter().collect();
    let driven = mechanism.at_driven_height().ok();
    all.extend(driven.as_ref());
    let worst = worst_of(mechanism, &all);
    for (index, watch) in mechanism.watches().iter().enumerate() {
        let Some(WorstFound { level, worst: value, met }) = worst[index] else { continue };
        if watch.is_gap() && is_bar(mechanism, watch.what) {
            checked.gap = Some(checked.gap.map_or(value, |gap: f64| gap.min(value)));
        }
        if is_bar(mechanism, watch.what) && !watch.is_gap() && is_tilt(watch.what) {
            checked.tilt = Some(checked.tilt.map_or(value, |tilt: f64| tilt.max(value)));
        }
        if level == Level::Free {
            continue;
        }
        let at = if level == Level::Violated {
            // One step of the sweep nearer to the driven height it is not over yet.
            let inward = (mechanism.driven() - met.left).clamp(-span, span);
            travel::over_from(mechanism, index, met.left + inward, met)
        } else {
            met.left
        };
        let reported = BracketMessage::Met {
            what: Happening::of(mechanism, watch.what, level),
            place: CrossedAt::of(mechanism, (at, at)),
        }
        .into();
        if level == Level::Violated { checked.fails.push(reported) } else { checked.minds.push(reported) }
    }
    let ride = poses.iter().map(|p| p.steer).find(|steer| steer.is_finite());
    checked.steer = ride.map(|_| {
        let driven = poses.iter().min_by(|a, b| far(a.left).total_cmp(&far(b.left))).map_or(0.0, |p| p.steer);
        poses.iter().map(|p| (p.steer - driven).abs()).fold(0.0, f64::max)
    });
    checked
}

/// What one watched figure came to over a sweep.
#[derive(Clone, Copy)]
struct WorstFound<'a> {
    level: Level,
    worst: f64,
    /// The pose that is told of it.
    met: &'a Posed,
}

/// What the sweep found.
#[derive(Default)]
struct SweptOption {
    tilt: Option<f64>,
    gap: Option<f64>,
    steer: Option<f64>,
    /// What is over its limit, and what comes near.
    fails: Vec<Message>,
    minds: Vec<Message>,
}

/// A sweep, by all that decides how it comes out.
pub(super) struct Sweep {
    /// How the eyes are moved, and the length where it is left.
    eyes: (EyeMoves, Option<Length>),
    body: SolvedBar,
    raised: [f64; 2],
    found: Rc<SweptOption>,
}
