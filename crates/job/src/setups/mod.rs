//! Found, plan, fitted: the one place that decides where both eyes are, which bar is meant, how
//! long it is, and which offset is corrected. Made once from the document; every stage is handed
//! it and none decides for itself.
//!
//! Not here: what the figures come to (stage Bar), and what a person reads of it.

pub mod adjuster;
pub mod known;
pub mod message;
pub mod moves;

use crate::document::check::{FieldError, asks};
use derecho_core::bar::adjuster::{AdjusterKind, facts_within};
use derecho_core::bar::{FrontView, Recentring};
use derecho_core::measure::centring::Answer;
use derecho_core::measure::conformity::most_proved;
use derecho_core::measure::{Length, TapeEntry};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

pub use self::adjuster::BarState;
pub use self::known::{Known, NoBar, Unknown, known};
use self::moves::{EyeMoves, InPlace};
use crate::defaults;
use crate::document::{
    ArmHoleId, Bar, BarId, DragLinkId, FittedMove, Job, LengthAim, PlanForm, Round, SheetKind, Sway,
    length_of,
};
use crate::message::Message;
use crate::setups::message::SetupsMessage;
use crate::tape::{SheetResult, tolerance};

/// Everything that decides where the axle goes, resolved.
#[derive(Clone, Debug, PartialEq)]
pub struct Setup {
    /// Where both eyes are, from where they were found.
    pub moves: EyeMoves,
    /// Brackets that are new where their eye stays.
    pub in_place: InPlace,
    /// The bar in it.
    pub bar: BarState,
    /// The bar at the driven height.
    pub view: FrontView,
    /// Its axle there, + to the left of the body's centre.
    pub offset: Length,
    /// The drag-link part; empty is none.
    pub drag_link: DragLinkId,
}

impl Setup {
    /// Whether another hole or another bar is meant; a length is no other plan.
    #[must_use]
    pub fn differs(&self, other: &Self) -> bool {
        self.bar.id != other.bar.id
            || !self.moves.since(other.moves).is_none()
            || self.in_place != other.in_place
    }
}

/// Where the offset that is corrected comes from.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BasisSource {
    /// From a sheet of readings.
    Readings,
    /// Reckoned from the lift, supposing the axle was centred before it.
    Lift,
    /// Nobody read and nothing was lifted: supposed to be centred as it stands.
    Supposed,
    /// A bar built to a gap that was measured with the axle strapped to centre.
    Strapped,
}

impl BasisSource {
    /// Whether nobody measured what is corrected: good to count with, no order to act on.
    #[must_use]
    pub const fn is_estimate(self) -> bool {
        matches!(self, Self::Lift | Self::Supposed)
    }
}

/// The offset that is corrected.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Basis {
    /// Where it comes from.
    pub source: BasisSource,
    /// The sheet's id, where it comes from one.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub sheet: Option<String>,
    /// e, + to the left.
    pub offset_mm: Length,
    /// U of e, where it was read.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub uncertainty_mm: Option<Length>,
    /// What the readings come to; a reckoned offset is off centre.
    #[serde(skip)]
    pub answer: OffsetAnswer,
    /// In words.
    pub says: Message,
}

/// What the readings of a basis come to.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum OffsetAnswer {
    /// Off centre, read or reckoned.
    #[default]
    Off,
    /// Within the tolerance.
    Centred,
    /// The readings cannot tell.
    CannotTell,
    /// Nobody read.
    Unread,
}

impl From<Answer> for OffsetAnswer {
    fn from(answer: Answer) -> Self {
        match answer {
            Answer::OffCentre => Self::Off,
            Answer::WithinTolerance => Self::Centred,
            Answer::CannotTell => Self::CannotTell,
        }
    }
}

/// A length a bar should have between its eyes, and what it can have.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Wanted {
    /// The length that puts the axle at its target, with the rules of thumb beside it.
    pub recentring: Recentring,
    /// The bar there.
    pub view: FrontView,
    /// The length the bar will have: the wanted one, or its own where it cannot be changed and
    /// leaves the axle within the tolerance.
    pub length: Length,
    /// Where the axle will be, + left.
    pub offset: Length,
}

/// As found, as read, as planned, as fitted. Nothing in it is optional that a stage needs.
#[derive(Clone, Debug, PartialEq)]
pub struct Setups {
    /// What the bar's geometry rests on.
    pub known: Known,
    /// As it came.
    pub found: Setup,
    /// As it stood before the round that is shown: what is corrected.
    pub base: Setup,
    /// How many rounds had been done then.
    pub round: usize,
    /// As it is planned from there; the base where nothing is planned.
    pub plan: Setup,
    /// What the plan wants of the bar; None where it is left as it is.
    pub wanted: Option<Wanted>,
    /// What the gap says that a bar is built to.
    pub gap: PlannedGap,
    /// The bar's length as the maker had it, where that was typed.
    pub stock_length: Option<Length>,
    /// As it is now, with every round's fitting.
    pub fitted: Setup,
    /// Each round's setup in turn, as found first, with its axle reckoned from the basis.
    pub rounds: Vec<Setup>,
    /// The plan that is tried in the drawing, where there is one, with its hole names.
    pub trial: Option<Setup>,
    /// Whether something was set since the base and not read again.
    pub unread: bool,
    /// What that was.
    pub made: Option<Round>,
    /// The offset that is corrected.
    pub basis: Basis,
    /// Whether the chosen plan points at a hole, a bar or a link part that is gone; or none is chosen, and a kept one
    /// named what is gone.
    pub plan_gone: bool,
    /// What counts as centred.
    pub tolerance: Length,
}

impl Setups {
    /// Resolves a job.
    ///
    /// # Errors
    /// With what is missing or impossible, each with its field.
    pub fn of(job: &Job, sheets: &[SheetResult]) -> Result<Self, Unknown> {
        let known = known(job)?;
        let history = History::of(job, &known);
        let rounds = job.setups.axle_rounds();
        let count = rounds.len();
        let views = (0..=count)
            .map(|round| {
                history
                    .view(round, &known)
                    .ok_or_else(|| impossible(round.checked_sub(1).map(|last| rounds[last].0)))
            })
            .collect::<Result<Vec<_>, _>>()?;
        let read = (0..=count).rev().find(|round| sheet_of_round(job, sheets, *round).is_some());
        let unread = count > 0
            && read != Some(count)
            && rounds.last().is_some_and(|(_, last)| completes(last, &history, count));
        let round = if unread { count - 1 } else { count };
        let basis = basis(job, sheets, (&known, &history, &views), read, round);
        let tolerance = tolerance(&job.rig);
        // Every other round's axle is reckoned from the one the basis speaks of.
        let offset = |other: usize| basis.offset_mm + history.carried(&views, round, other);
        let setup = |round: usize| history.setup(round, views[round], offset(round));
        let base = setup(round);
        let chosen = job.setups.plans.chosen.as_ref();
        let (plan, wanted, plan_gone) = match chosen.map(|form| planned(job, form, &base, &basis, tolerance))
        {
            Some(Some((plan, wanted))) => (plan, wanted, false),
            gone => {
                let named = |plan: &PlanForm| !plan.gone.is_empty();
                let gone = gone.is_some() || job.setups.plans.kept.iter().any(named);
                let alone = PlanForm::default();
                let (plan, wanted) =
                    planned(job, &alone, &base, &basis, tolerance).unwrap_or_else(|| (base.clone(), None));
                (plan, wanted, gone)
            }
        };
        let gap = PlannedGap::of(job, &known, (&plan, &base), wanted.as_ref(), tolerance);
        let tried = job.setups.plans.trial.as_ref();
        let trial =
            tried.and_then(|form| planned(job, form, &base, &basis, tolerance)).map(|(setup, _)| setup);
        Ok(Self {
            trial,
            rounds: (0..=count).map(setup).collect(),
            found: setup(0),
            fitted: setup(count),
            base,
            round,
            plan,
            wanted,
            gap,
            stock_length: length_of(&job.bracket.stock_length),
            made: rounds.last().filter(|_| unread).map(|(_, made)| (*made).clone()),
            unread,
            basis,
            plan_gone,
            tolerance,
            known,
        })
    }

    /// Where the frame eye is, + left of the frame's centreline, as the last round left it, and whether
    /// nobody plumbed an eye: then the bar as found is taken to lie with its middle under the frame's.
    #[must_use]
    pub fn frame_eye_y(&self, bar: &Bar) -> (Length, bool) {
        // Both eyes were plumbed from the frame, as the axle stood when the bar was found.
        let (s, reach) = (self.found.view.frame_eye_side().sign(), self.found.view.reach());
        let (out, assumed) = match (&bar.frame_eye_from_centre, &bar.axle_eye_from_centre) {
            (Some(from_centre), _) => (from_centre.length(), false),
            (None, Some(from_centre)) => (reach - from_centre.length(), false),
            (None, None) => (reach / 2.0, true),
        };
        (out * s + Length::from_mm(self.base.moves.frame.y), assumed)
    }

    /// The setup beside the base that is drawn and cycled: what was set, else what is planned.
    #[must_use]
    pub const fn other(&self) -> &Setup {
        if self.unread { &self.fitted } else { &self.plan }
    }

    /// What counts as reached: an offset that could still be proved to be centred.
    #[must_use]
    pub fn reach_tolerance(&self) -> Length {
        reach_tolerance(self.tolerance, &self.basis)
    }

    /// What a plan comes to from the base; None where a part of it is gone or there is no such bar.
    #[must_use]
    pub fn plan_of(&self, job: &Job, form: &PlanForm) -> Option<(Setup, Option<Wanted>)> {
        planned(job, form, &self.base, &self.basis, self.tolerance)
    }

    /// What any bar wants with the eyes moved from the base, and whether that is covered.
    #[must_use]
    pub fn wanted_with(&self, moves: EyeMoves, bar: &BarState) -> Option<Wanted> {
        self.wanted_as(moves, bar, LengthAim::Centred)
    }

    /// The same with a length that is meant otherwise.
    #[must_use]
    pub fn wanted_as(&self, moves: EyeMoves, bar: &BarState, aim: LengthAim) -> Option<Wanted> {
        let is_plan = moves == self.plan.moves.since(self.base.moves) && bar.id == self.plan.bar.id;
        let made = if is_plan { self.gap.length() } else { None };
        let kept = match aim {
            LengthAim::AsTheMakerHadIt => self.stock_length,
            LengthAim::AsTheOldOne => Some(self.base.view.length()),
            LengthAim::Centred => None,
        };
        wanted(&self.base, moves, (bar, made), &self.basis, self.tolerance, kept)
    }
}

/// What the gap that a bar is built to says of the plan.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub enum PlannedGap {
    /// No bar is built, or none that a gap was measured for.
    #[default]
    None,
    /// It is the gap between the planned holes, and the bar gets this length.
    Taped(Length),
    /// It was measured between other holes than the planned ones.
    TapeAgain,
    /// It is the gap between the planned holes, and makes another length than centring wants.
    Disagrees {
        /// The length it makes.
        length: Length,
        /// That less what is wanted.
        off: Length,
        /// What is wanted.
        wanted: Length,
    },
}

impl PlannedGap {
    fn of(
        job: &Job,
        known: &Known,
        (plan, base): (&Setup, &Setup),
        wanted: Option<&Wanted>,
        tolerance: Length,
    ) -> Self {
        if !plan.bar.is_to_be_made() {
            return Self::None;
        }
        let moves_an_eye = !plan.moves.since(base.moves).is_none();
        match (known::planned_built_length(job, moves_an_eye), wanted) {
            (Some(length), Some(wanted)) => {
                let off = length - wanted.recentring.length_mm;
                if off.abs() > wanted.length_tolerance(tolerance) {
                    Self::Disagrees { length, off, wanted: wanted.recentring.length_mm }
                } else {
                    Self::Taped(length)
                }
            }
            (Some(length), None) => Self::Taped(length),
            (None, _) if known.built => Self::TapeAgain,
            (None, _) => Self::None,
        }
    }

    /// The length that it makes; None where it was not measured between the planned holes.
    #[must_use]
    pub const fn length(self) -> Option<Length> {
        match self {
            Self::Taped(length) | Self::Disagrees { length, .. } => Some(length),
            Self::None | Self::TapeAgain => None,
        }
    }
}

/// `round` is the place of the round whose length cannot be; None is the bar as found.
fn impossible(round: Option<usize>) -> Unknown {
    let message = asks::BAR_TOO_SHORT;
    let pointer = match round {
        None => format!("{}/length", known::BAR),
        Some(last) => format!("/setups/rounds/{last}/length"),
    };
    Unknown { why: NoBar::Impossible, missing: vec![FieldError::new(pointer, "impossible_bar", message)] }
}

/// The bar and both eyes after each round, as found first.
struct History {
    moves: Vec<EyeMoves>,
    in_place: Vec<InPlace>,
    bars: Vec<BarState>,
    drag_links: Vec<DragLinkId>,
}

impl History {
    fn of(job: &Job, known: &Known) -> Self {
        let found = BarState::found(job, known.length, known.built);
        let mut history = Self {
            moves: vec![EyeMoves::default()],
            in_place: vec![InPlace::default()],
            bars: vec![found.clone()],
            drag_links: vec![DragLinkId::default()],
        };
        for (_, round) in job.setups.axle_rounds() {
            let last = history.moves.len() - 1;
            let landed = |fitted: &FittedMove| {
                EyeMoves::from(fitted).and(EyeMoves::of(fitted.end, moves::off(fitted, known.side)))
            };
            let moved = round.moved.iter().map(landed).fold(history.moves[last], EyeMoves::and);
            let before = &history.bars[last];
            let bar = match &round.bar {
                Some(id) if *id != before.id => hung(job, id, before.length).unwrap_or_else(|| found.clone()),
                _ => before.clone(),
            };
            let link = if round.drag_link.is_empty() { &history.drag_links[last] } else { &round.drag_link };
            let link = link.clone();
            let in_place = round.moved.iter().fold(history.in_place[last].clone(), |place, fitted| {
                place.with(fitted.end, &fitted.to, moved.at(fitted.end))
            });
            history.moves.push(moved);
            history.in_place.push(in_place);
            history.bars.push(bar.after(round));
            history.drag_links.push(link);
        }
        history
    }

    fn view(&self, round: usize, known: &Known) -> Option<FrontView> {
        let moves = self.moves[round];
        let (rise, fore_aft) = (known.driven_rise + moves.rise(), known.fore_aft + moves.fore_aft());
        FrontView::new(self.bars[round].length, rise, fore_aft, known.side).ok()
    }

    /// How far the axle went to the left from one round to another.
    fn carried(&self, views: &[FrontView], from: usize, to: usize) -> Length {
        let reach = views[from].reach() - views[to].reach();
        reach * views[from].frame_eye_side().sign() + self.moves[to].since(self.moves[from]).sideways()
    }

    fn setup(&self, round: usize, view: FrontView, offset: Length) -> Setup {
        Setup {
            moves: self.moves[round],
            in_place: self.in_place[round].clone(),
            bar: self.bars[round].clone(),
            view,
            offset,
            drag_link: self.drag_links[round].clone(),
        }
    }
}

/// A part as it is hung, in place of a bar of the `old` length. None where there is no such part.
#[must_use]
pub fn hung(job: &Job, bar: &BarId, old: Length) -> Option<BarState> {
    job.bar_part(bar).map(|part| BarState::new(part, old))
}

/// Whether a round ends with a bar that is as long as it was meant: a length was set, or the bar
/// that is in has none to set. Else there is more to do before reading again.
fn completes(last: &Round, history: &History, count: usize) -> bool {
    let fixed = history.bars[count].adjuster.as_ref().is_none_or(|a| a.kind == AdjusterKind::Fixed);
    last.length.is_some() || (fixed && !history.bars[count].made_to_length)
}

/// The newest usable answer among the sheets read in a round, staleness aside.
#[must_use]
pub fn sheet_of_round<'a>(job: &Job, sheets: &'a [SheetResult], round: usize) -> Option<&'a SheetResult> {
    job.sheets
        .iter()
        .zip(sheets)
        .filter(|(sheet, result)| {
            job.setups.axle_rounds_before(&sheet.after) == round
                && sheet.kind == SheetKind::Centring
                && result.centring.is_some()
                && result.drives()
        })
        .map(|(_, result)| result)
        .next_back()
}

/// The offset at the base: read there, or read in an earlier round and reckoned on; else what
/// the lift did, with what was done since; else supposed to be nought.
fn basis(
    job: &Job,
    sheets: &[SheetResult],
    (known, history, views): (&Known, &History, &[FrontView]),
    read: Option<usize>,
    round: usize,
) -> Basis {
    // A gap taken with the axle strapped to centre has the offset in it: what was read as it stood is not added again.
    let before_built = |read: usize| known.built && read == 0;
    if let Some(read) = read.filter(|read| *read <= round && !before_built(*read))
        && let Some(sheet) = sheet_of_round(job, sheets, read)
        && let Some(centring) = &sheet.centring
    {
        let since = history.carried(views, read, round);
        let offset = centring.offset_mm + since;
        let answer = if read == round { centring.answer.into() } else { OffsetAnswer::Off };
        return Basis {
            source: BasisSource::Readings,
            sheet: Some(sheet.id.clone()),
            offset_mm: offset,
            uncertainty_mm: Some(centring.uncertainty_mm),
            answer,
            says: SetupsMessage::Read { offset, uncertainty: centring.uncertainty_mm, there: read == round }
                .into(),
        };
    }
    let done = history.carried(views, 0, round);
    let lift = length_of(&job.rig.lift).filter(|lift| *lift != Length::ZERO && !known.built);
    let lifted = lift.and_then(|lift| views[0].raised_by(-lift).ok()?.shift_of_lift(lift).ok());
    let (source, offset, answer, says) = match lifted {
        Some(shift) => (
            BasisSource::Lift,
            shift + done,
            OffsetAnswer::Off,
            SetupsMessage::Reckoned { offset: shift + done }.into(),
        ),
        None if known.built => {
            (BasisSource::Strapped, done, OffsetAnswer::Centred, SetupsMessage::Strapped.into())
        }
        None => (BasisSource::Supposed, done, OffsetAnswer::Unread, SetupsMessage::Supposed.into()),
    };
    Basis { source, sheet: None, offset_mm: offset, uncertainty_mm: None, answer, says }
}

/// What a plan comes to from a base.
fn planned(
    job: &Job,
    form: &PlanForm,
    base: &Setup,
    basis: &Basis,
    tolerance: Length,
) -> Option<(Setup, Option<Wanted>)> {
    let moves = moves::planned(job, form, base.moves)?;
    let bar = if form.bar.is_empty() || form.bar == base.bar.id {
        base.bar.clone()
    } else {
        hung(job, &form.bar, base.view.length())?
    };
    if !form.drag_link.is_empty() && job.drag_link_part(&form.drag_link).is_none() {
        return None;
    }
    let drag_link = if form.drag_link.is_empty() { base.drag_link.clone() } else { form.drag_link.clone() };
    let carried = moves.since(base.moves);
    let chosen = job.setups.plans.chosen.as_ref() == Some(form);
    let made = if chosen { known::planned_built_length(job, !carried.is_none()) } else { None };
    let kept = kept_length(job, base, form.length);
    let wanted = wanted(base, carried, (&bar, made), basis, tolerance, kept);
    let (view, offset) = match &wanted {
        Some(wanted) => (wanted.view.with_length(wanted.length).ok()?, wanted.offset),
        None => (base.view, base.offset),
    };
    let in_place = moves::planned_in_place(form, moves, &base.in_place);
    let bar = BarState { length: view.length(), ..bar };
    Some((Setup { moves, in_place, bar, view, offset, drag_link }, wanted))
}

/// A length that is meant whatever the readings say; None where it is to centre the axle.
fn kept_length(job: &Job, base: &Setup, aim: LengthAim) -> Option<Length> {
    match aim {
        LengthAim::Centred => None,
        LengthAim::AsTheOldOne => Some(base.view.length()),
        LengthAim::AsTheMakerHadIt => length_of(&job.bracket.stock_length),
    }
}

/// The length a bar should have with the eyes moved from the base; None where it is left as it is. `made` is what the
/// gap comes to that a bar is built to, which then rules; `kept` a length that is not worked out from where the axle stands.
fn wanted(
    base: &Setup,
    moves: EyeMoves,
    (bar, made): (&BarState, Option<Length>),
    basis: &Basis,
    tolerance: Length,
    kept: Option<Length>,
) -> Option<Wanted> {
    let changes = !moves.is_none() || bar.id != base.bar.id;
    if !changes && basis.answer != OffsetAnswer::Off {
        return None;
    }
    let offset = base.offset;
    let (recentring, view) =
        base.view.recentred_moved(offset, moves.rise(), moves.fore_aft(), moves.sideways()).ok()?;
    let lands = |length: Length| {
        let set = view.with_length(length).ok()?;
        Some((view.reach() - set.reach()) * view.frame_eye_side().sign())
    };
    if let Some(kept) = kept {
        let change_mm = kept - base.view.length();
        let recentring = Recentring { length_mm: kept, change_mm, ..recentring };
        let there = lands(kept)?;
        return Some(Wanted { recentring, view: view.with_length(kept).ok()?, length: kept, offset: there });
    }
    if let Some(made) = made.filter(|_| bar.is_to_be_made()) {
        return Some(Wanted { recentring, view, length: made, offset: lands(made)? });
    }
    let own = bar.length;
    let fixed = bar.adjuster.as_ref().is_some_and(|adjuster| adjuster.kind == AdjusterKind::Fixed);
    // A bar that cannot be changed is right where it leaves the axle within the tolerance.
    let stays = lands(own).filter(|left| fixed && left.abs() <= tolerance);
    let (length, offset) = match stays {
        Some(left) => (own, left),
        None => reached(bar, &recentring, &view, reach_tolerance(tolerance, basis))
            .and_then(|length| Some((length, lands(length)?)))
            .unwrap_or((recentring.length_mm, Length::ZERO)),
    };
    Some(Wanted { recentring, view, length, offset })
}

/// Where the bar's thread ends short of the length that centres, and what that leaves could still be proved to be
/// centred: how long it gets. None where it gets as long as is wanted, or not near enough.
fn reached(bar: &BarState, exact: &Recentring, view: &FrontView, reach: Length) -> Option<Length> {
    let adjuster = bar.adjuster.as_ref().filter(|adjuster| adjuster.kind != AdjusterKind::Fixed)?;
    let slack = reach * (view.reach() / view.length());
    let set = facts_within(adjuster, bar.length, exact.length_mm, slack);
    let longest = set.equal_engagement_longest_mm.filter(|longest| *longest < exact.length_mm);
    let shortest = set.equal_engagement_shortest_mm.filter(|shortest| *shortest > exact.length_mm);
    let end = longest.or(shortest)?;
    ((end - exact.length_mm).abs() <= slack).then_some(end)
}

/// An offset that is left on purpose, since a bar ends there, counts as reached as far as it can be proved with the
/// readings there are: it would be sent back from stage Prove else.
fn reach_tolerance(tolerance: Length, basis: &Basis) -> Length {
    let standard = basis.uncertainty_mm.map_or(defaults::OFFSET_GOOD_TO, |uncertainty| uncertainty / 2.0);
    most_proved(standard, tolerance)
}

impl Wanted {
    /// A change of length that keeps the axle within the tolerance: tolerance · h/L, since to
    /// first order the axle moves L/h of what the length changes.
    #[must_use]
    pub fn length_tolerance(&self, tolerance: Length) -> Length {
        tolerance * (self.view.reach() / self.view.length())
    }

    /// Whether a bar can be so long, or near enough; None where that is not known.
    #[must_use]
    pub fn covered(&self, bar: &BarState, tolerance: Length) -> Option<bool> {
        if bar.is_to_be_made() {
            let slack = self.length_tolerance(tolerance);
            let (least, most) = bar.range;
            return Some(
                least.is_none_or(|least| least - slack <= self.length)
                    && most.is_none_or(|most| self.length <= most + slack),
            );
        }
        let adjuster = bar.adjuster.as_ref()?;
        if adjuster.kind == AdjusterKind::Fixed {
            return Some((self.length - bar.length).abs().to_mm() < 1e-9);
        }
        let slack = self.length_tolerance(tolerance);
        let set = facts_within(adjuster, bar.length, self.length, slack);
        match (set.equal_engagement_shortest_mm, set.equal_engagement_longest_mm) {
            (None, None) => None,
            (least, most) => Some(
                least.is_none_or(|least| self.length >= least - slack)
                    && most.is_none_or(|most| self.length <= most + slack),
            ),
        }
    }
}

/// The last round before `round` in which both sides were read well enough, with its sheet.
#[must_use]
pub fn read_before<'a>(
    job: &Job,
    sheets: &'a [SheetResult],
    round: usize,
) -> Option<(usize, &'a SheetResult)> {
    (0..round).rev().find_map(|earlier| Some((earlier, sheet_of_round(job, sheets, earlier)?)))
}

/// A job resolved: what every stage is handed.
#[derive(Clone, Debug, PartialEq)]
pub struct Resolved {
    /// Its sheets, worked out.
    pub sheets: Vec<SheetResult>,
    /// The track bar's setups, or what keeps them from being known.
    pub bar: Result<Setups, Unknown>,
    /// The sway bar's.
    pub sway: SwaySetups,
}

impl Resolved {
    /// Resolves a job, once.
    #[must_use]
    pub fn of(job: &Job) -> Self {
        let sheets = crate::tape::results(job);
        Self { bar: Setups::of(job, &sheets), sway: SwaySetups::of(job), sheets }
    }

    /// The track bar's setups, where they are known.
    #[must_use]
    pub fn setups(&self) -> Option<&Setups> {
        self.bar.as_ref().ok()
    }

    /// The same where the bar's angle was measured: what moves with the travel is worked out from no other.
    #[must_use]
    pub fn measured_setups(&self) -> Option<&Setups> {
        self.setups().filter(|setups| setups.known.rise_is_measured())
    }

    /// Why there is no track bar to set, and what is missing; nothing where there is one.
    #[must_use]
    pub fn unknown(&self) -> Option<&Unknown> {
        self.bar.as_ref().err()
    }
}

/// The sway bar's form as it was found, as planned and as fitted.
#[derive(Clone, Debug, PartialEq)]
pub struct SwaySetups {
    /// As found.
    pub found: Sway,
    /// With what the chosen plan names.
    pub plan: Sway,
    /// With what was fitted since.
    pub fitted: Sway,
}

impl SwaySetups {
    /// Resolves it.
    #[must_use]
    pub fn of(job: &Job) -> Self {
        let with = |form: &Sway, hole: Option<&ArmHoleId>, link: Option<&TapeEntry>| Sway {
            hole: hole.unwrap_or(&form.hole).clone(),
            link: link.or(form.link.as_ref()).cloned(),
            ..form.clone()
        };
        let fitted = job.setups.rounds.iter().fold(job.sway.clone(), |sway, round| {
            with(&sway, round.sway_hole.as_ref(), round.sway_link.as_ref())
        });
        let planned = &job.setups.plans.sway;
        let plan = with(&fitted, planned.hole.as_ref(), planned.link.as_ref());
        Self { found: job.sway.clone(), plan, fitted }
    }
}
