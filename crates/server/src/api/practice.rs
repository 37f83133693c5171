//! The practice bay: lessons, and vehicles that exist only in the program. Not here: where their jobs are kept
//! (`crate::practice_bay`), what is planted and judged (the practice crate).

use crate::english::in_own_words;
use axum::Json;
use axum::extract::rejection::{JsonRejection, PathRejection};
use axum::extract::{Path, State};
use axum::http::StatusCode;
use derecho_core::measure::{Phrase, Unit};
use derecho_instruments::instrument::{Announced, Kind, Reading, Unit as InstrumentUnit};
use derecho_practice::lessons::{LESSONS, Lesson, Planted};
use derecho_practice::session::{Act, Debriefing, Done, LINKS, Session};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{AppState, path};
use crate::api::jobs::new_id;
use crate::api::problem::Problem;
use crate::practice_bay::{UnderWay, practice_id};

/// Runs on a lesson under way.
fn with<T>(state: &AppState, id: &str, run: impl FnOnce(&mut UnderWay) -> T) -> Result<T, Problem> {
    state.practice.with(id, run).ok_or_else(|| {
        let says =
            "This practice vehicle is gone: it lasts only while the program runs. Start the lesson again.";
        Problem::new(StatusCode::NOT_FOUND, "no_such_practice", says)
    })
}

/// A lesson to choose.
#[derive(Debug, Serialize, ToSchema)]
pub struct LessonLine {
    /// What it begins with.
    pub planted: Planted,
    /// What it is called.
    pub title: String,
    /// How the vehicle comes into the bay.
    pub begins: String,
}

/// Which lesson to begin.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Begin {
    /// The lesson.
    pub planted: Planted,
    /// The same seed is the same vehicle; another one each time where left out.
    #[serde(default)]
    pub seed: Option<u64>,
    /// The unit of its tape.
    #[serde(default)]
    pub unit: Option<Unit>,
}

/// Something that can be done, with its words.
#[derive(Debug, Serialize, ToSchema)]
pub struct Possible {
    /// What.
    pub act: Act,
    /// On the button.
    pub says: Phrase,
}

/// A lesson under way, as far as somebody in the bay sees it.
#[derive(Debug, Serialize, ToSchema)]
pub struct UnderWayView {
    /// Its job.
    pub job: String,
    /// The lesson.
    pub lesson: LessonLine,
    /// How the vehicle stands.
    pub stands: String,
    /// What can be done here and now, the tape apart.
    pub possible: Vec<Possible>,
    /// What was done, in order.
    pub done: Vec<Done>,
}

impl From<&Lesson> for LessonLine {
    fn from(lesson: &Lesson) -> Self {
        Self {
            planted: lesson.planted,
            title: in_own_words(lesson.title),
            begins: in_own_words(lesson.begins),
        }
    }
}

fn says(act: Act) -> Phrase {
    let plain = match act {
        Act::Read { .. } => "Measure",
        Act::ReadFrameEye => "Measure: floor to frame end of the bar",
        Act::ReadAxleEye => "Measure: floor to axle end of the bar",
        Act::ReadBar => "Measure: the bar, eye to eye",
        Act::Bounce => "Bounce it",
        Act::LetDown => "Set it down on its wheels",
        Act::Lift => "Up on jack stands",
        Act::LeaveRaised => "Set the switch to the driven height",
        Act::SendAway => "Send the helper away",
        Act::Turn { .. } => "Turn the sleeve",
        Act::EvenEnds => "Even up both ends",
        Act::StartNut => "Start the nut by hand",
        Act::DriveNut => "Run it on with the wrench",
        Act::RefuseNut => "Don't use it, get the right one",
        Act::MendHole => "Check the bolt holes and fix the worn one",
        Act::SendBack => "Send the bracket back",
        Act::HangLinks { pair } => {
            let length = derecho_core::measure::Length::from_mm(LINKS.get(pair).copied().unwrap_or_default());
            return Phrase::of(|w| format!("Install the {} pair of sway links", w.fine(length)));
        }
    };
    Phrase::plain(&in_own_words(plain))
}

fn view(job: &str, session: &Session) -> UnderWayView {
    UnderWayView {
        job: job.to_owned(),
        lesson: session.lesson().into(),
        stands: in_own_words(session.stands()),
        possible: session.acts().into_iter().map(|act| Possible { act, says: says(act) }).collect(),
        done: session.done().to_vec(),
    }
}

/// The tape that comes with a practice vehicle.
fn tape(unit: Unit) -> Announced {
    let (unit, resolution, good_to) = match unit {
        Unit::Inches => (InstrumentUnit::Inches, 0.0625, 0.03),
        Unit::Millimetres => (InstrumentUnit::Millimetres, 1.0, 0.5),
    };
    let checked = jiff::Zoned::now().date().yesterday().ok();
    Announced { id: "practice tape".to_owned(), kind: Kind::Tape, unit, resolution, good_to, checked }
}

/// Lessons to choose from.
#[utoipa::path(
    get, path = "/api/v1/practice/lessons", tag = "practice", operation_id = "lessons",
    responses((status = 200, description = "Every lesson, the plainest first", body = Vec<LessonLine>))
)]
pub async fn lessons() -> Json<Vec<LessonLine>> {
    Json(LESSONS.iter().map(LessonLine::from).collect())
}

/// Begins a lesson: a vehicle, its job, and a tape on the shelf.
#[utoipa::path(
    post, path = "/api/v1/practice/lessons", tag = "practice", operation_id = "begin_lesson", request_body = Begin,
    responses(
        (status = 201, description = "Begun", body = UnderWayView),
        (status = 400, description = "No such lesson", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn begin(
    State(state): State<AppState>,
    wanted: Result<Json<Begin>, JsonRejection>,
) -> Result<(StatusCode, Json<UnderWayView>), Problem> {
    let wanted = super::instruments::body(wanted)?;
    let seed = wanted.seed.unwrap_or_else(|| Timestamp::now().as_microsecond().unsigned_abs());
    let id = practice_id(&new_id());
    let begun = state.computed(move || Ok(Session::begin(Lesson::of(wanted.planted), seed, wanted.unit)));
    let (session, job) = begun.await?;
    let of = id.clone();
    state.stored_of(&id, move |store| store.create(&of, &job, Timestamp::now())).await?;
    state.registry.put(tape(session.unit()), &format!("practice:{id}"));
    let reported = view(&id, &session);
    state.practice.begin(id, session);
    Ok((StatusCode::CREATED, Json(reported)))
}

/// A lesson under way.
#[utoipa::path(
    get, path = "/api/v1/practice/{job}", tag = "practice", operation_id = "lesson_under_way",
    params(("job" = String, Path, description = "Its job")),
    responses(
        (status = 200, description = "As it stands", body = UnderWayView),
        (status = 404, description = "It is gone", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn under_way(
    State(state): State<AppState>,
    job: Result<Path<String>, PathRejection>,
) -> Result<Json<UnderWayView>, Problem> {
    let id = path(job)?;
    with(&state, &id, |one| Json(view(&id, &one.session)))
}

/// Does something to the vehicle. What the tape shows is held on the shelf too, for the field one is in.
#[utoipa::path(
    post, path = "/api/v1/practice/{job}/act", tag = "practice", operation_id = "act", request_body = Act,
    params(("job" = String, Path, description = "Its job")),
    responses(
        (status = 200, description = "Done", body = UnderWayView),
        (status = 400, description = "Nothing that can be done", body = Problem, content_type = "application/problem+json"),
        (status = 404, description = "It is gone", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn act(
    State(state): State<AppState>,
    job: Result<Path<String>, PathRejection>,
    wanted: Result<Json<Act>, JsonRejection>,
) -> Result<Json<UnderWayView>, Problem> {
    let (id, act) = (path(job)?, super::instruments::body(wanted)?);
    if matches!(act, Act::Turn { flats } if flats.abs() > 600) {
        let says = "100 turns at a time at most.";
        return Err(Problem::new(StatusCode::BAD_REQUEST, "bad_body", says));
    }
    let (reported, shown) = with(&state, &id, |one| {
        let taped = matches!(act, Act::Read { .. } | Act::ReadBar | Act::ReadFrameEye | Act::ReadAxleEye);
        let shows = one.session.act(act).shows_mm.filter(|_| taped);
        one.number += 1;
        let unit = one.session.unit();
        let reading = shows.map(|mm| {
            let (value, unit) = match unit {
                Unit::Inches => (mm / 25.4, InstrumentUnit::Inches),
                Unit::Millimetres => (mm, InstrumentUnit::Millimetres),
            };
            // Numbers of two lessons never meet.
            let number = one.number.wrapping_add(one.began.as_microsecond().unsigned_abs());
            (Reading { number, value, unit, held: true, place: None }, one.session.unit())
        });
        (view(&id, &one.session), reading)
    })?;
    if let Some((reading, unit)) = shown {
        let tape = tape(unit);
        state.registry.put(tape.clone(), &format!("practice:{id}"));
        state.registry.hold(&tape.id, reading);
    }
    Ok(Json(reported))
}

/// Calls a lesson done: the truth beside what was believed.
#[utoipa::path(
    post, path = "/api/v1/practice/{job}/done", tag = "practice", operation_id = "debrief",
    params(("job" = String, Path, description = "Its job")),
    responses(
        (status = 200, description = "How it went", body = Debriefing),
        (status = 404, description = "It is gone", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn debrief(
    State(state): State<AppState>,
    job: Result<Path<String>, PathRejection>,
) -> Result<Json<Debriefing>, Problem> {
    let id = path(job)?;
    let (session, began) = with(&state, &id, |one| (one.session.clone(), one.began))?;
    let of = id.clone();
    let stored = state.stored_of(&id, move |store| store.get(&of)).await?;
    let reported = state
        .computed(move || Ok(session.debrief(&stored.job, began.duration_until(Timestamp::now()).as_secs())))
        .await?;
    let reported = Debriefing {
        learns: in_own_words(&reported.learns),
        careful: in_own_words(&reported.careful),
        ..reported
    };
    state.registry.take_away(&format!("practice:{id}"));
    Ok(Json(reported))
}
