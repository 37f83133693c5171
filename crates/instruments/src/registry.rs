//! The shelf: which ways are joined, which instruments are on them, and what each shows. An instrument that goes
//! away comes back by itself.

use std::collections::BTreeMap;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use futures_util::{SinkExt as _, StreamExt as _};
use serde::{Deserialize, Serialize};
use tokio::sync::{broadcast, mpsc};
use tokio::task::AbortHandle;
use tokio_util::codec::Framed;
use utoipa::ToSchema;

use crate::connection::{Lines, Stream, Way};
use crate::instrument::{Announced, Kind, Reading};
use crate::message::Sentence;

/// How long until a way that is gone is tried again.
const AGAIN: Duration = Duration::from_secs(1);
/// A line that says nothing for so long is taken to be cut: instruments tell what they are every ten seconds.
const SILENCE: Duration = Duration::from_secs(30);
/// Events that wait for a slow listener.
const EVENTS: usize = 256;
/// Most ways that can be joined at once.
const MOST_WAYS: usize = 16;
/// Most instruments on all of them.
const MOST_INSTRUMENTS: usize = 64;

/// An instrument on the shelf.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OnRegistry {
    /// What it says of itself.
    #[serde(flatten)]
    pub announced: Announced,
    /// The way it is reached.
    pub way: String,
    /// Whether it is there now.
    pub there: bool,
    /// Whether its battery is low.
    pub low_battery: bool,
    /// What it cannot do, in its own words.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub fault: Option<String>,
    /// What it shows.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub live: Option<Reading>,
    /// What it held last.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub held: Option<Reading>,
}

/// A way that is joined.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct JoinedWay {
    /// `tcp:HOST:PORT` or `serial:/dev/DEVICE`.
    pub way: String,
    /// Whether the line is open.
    pub there: bool,
    /// Lines that were dropped: a checksum that does not fit, or nothing of the protocol.
    pub dropped: u64,
}

/// Everything on the shelf.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Shown {
    /// Ways, by their names.
    pub ways: Vec<JoinedWay>,
    /// Instruments, by their ids.
    pub instruments: Vec<OnRegistry>,
}

/// A reading that was held.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Held {
    /// By which instrument.
    pub instrument: Announced,
    /// The way it is reached.
    pub way: String,
    /// The reading.
    pub reading: Reading,
    /// As a field takes it, with its unit.
    pub text: String,
    /// Whether the instrument's check is overdue.
    pub overdue: bool,
}

/// What happens on the shelf.
#[derive(Clone, Debug, PartialEq)]
pub enum RegistryEvent {
    /// Something is shown otherwise.
    Changed,
    /// A reading was held.
    Held(Box<Held>),
}

/// Why something cannot be done with the shelf.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub enum RegistryFault {
    /// There are enough.
    #[error("at most {MOST_WAYS} connections")]
    Full,
    /// Nobody of that name.
    #[error("no such instrument is connected")]
    Unknown,
    /// It is away.
    #[error("that instrument is not responding")]
    Away,
}

struct Line {
    shown: JoinedWay,
    commands: mpsc::Sender<Sentence>,
    task: AbortHandle,
}

impl Drop for Line {
    fn drop(&mut self) {
        self.task.abort();
    }
}

#[derive(Default)]
struct State {
    lines: BTreeMap<Way, Line>,
    instruments: BTreeMap<String, OnRegistry>,
}

struct Inner {
    state: Mutex<State>,
    events: broadcast::Sender<RegistryEvent>,
}

/// The shelf of a shop. Cloned it is the same shelf.
#[derive(Clone)]
pub struct Registry(Arc<Inner>);

impl Default for Registry {
    fn default() -> Self {
        let (events, _) = broadcast::channel(EVENTS);
        Self(Arc::new(Inner { state: Mutex::default(), events }))
    }
}

impl Registry {
    fn state(&self) -> MutexGuard<'_, State> {
        self.0.state.lock().unwrap_or_else(PoisonError::into_inner)
    }

    fn tell(&self, event: RegistryEvent) {
        // Nobody listens: nobody need be told.
        let _ = self.0.events.send(event);
    }

    /// What happens from now on.
    #[must_use]
    pub fn listen(&self) -> broadcast::Receiver<RegistryEvent> {
        self.0.events.subscribe()
    }

    /// Everything on it.
    #[must_use]
    pub fn shown(&self) -> Shown {
        let state = self.state();
        Shown {
            ways: state.lines.values().map(|line| line.shown.clone()).collect(),
            instruments: state.instruments.values().cloned().collect(),
        }
    }

    /// Joins a way: it is opened, and opened again whenever it is gone. Joined twice it is joined once. Within a
    /// Tokio runtime.
    ///
    /// # Errors
    /// Where there are enough.
    pub fn join(&self, way: &Way) -> Result<(), RegistryFault> {
        let mut state = self.state();
        if state.lines.contains_key(way) {
            return Ok(());
        }
        if state.lines.len() == MOST_WAYS {
            return Err(RegistryFault::Full);
        }
        let (commands, orders) = mpsc::channel(8);
        let task = tokio::spawn(self.clone().follow(way.clone(), orders)).abort_handle();
        let shown = JoinedWay { way: way.to_string(), there: false, dropped: 0 };
        state.lines.insert(way.clone(), Line { shown, commands, task });
        drop(state);
        self.tell(RegistryEvent::Changed);
        Ok(())
    }

    /// Leaves a way, with every instrument on it; false where it was not joined.
    pub fn leave(&self, way: &Way) -> bool {
        let mut state = self.state();
        let left = state.lines.remove(way).is_some();
        let name = way.to_string();
        state.instruments.retain(|_, instrument| instrument.way != name);
        drop(state);
        self.tell(RegistryEvent::Changed);
        left
    }

    /// Puts an instrument of this program itself on the shelf, such as those of a practice vehicle.
    pub fn put(&self, announced: Announced, way: &str) {
        self.announce(announced, way);
    }

    /// Takes such an instrument away again.
    pub fn take_away(&self, way: &str) {
        self.state().instruments.retain(|_, instrument| instrument.way != way);
        self.tell(RegistryEvent::Changed);
    }

    /// A reading held by an instrument of this program itself.
    pub fn hold(&self, id: &str, reading: Reading) {
        self.read(id, reading);
    }

    /// Asks an instrument for a held reading, or to be set to nought.
    ///
    /// # Errors
    /// Where it is unknown, or away.
    pub fn order(&self, order: Sentence) -> Result<(), RegistryFault> {
        let (Sentence::Ask { id } | Sentence::Zero { id }) = &order else {
            return Err(RegistryFault::Unknown);
        };
        let state = self.state();
        let instrument = state.instruments.get(id).ok_or(RegistryFault::Unknown)?;
        let line =
            state.lines.values().find(|line| line.shown.way == instrument.way).ok_or(RegistryFault::Away)?;
        if !instrument.there {
            return Err(RegistryFault::Away);
        }
        line.commands.try_send(order).map_err(|_| RegistryFault::Away)
    }

    /// Follows one way for ever.
    async fn follow(self, way: Way, mut orders: mpsc::Receiver<Sentence>) {
        loop {
            if let Ok(stream) = way.open().await {
                self.opened(&way, true);
                self.read_line(&way, stream, &mut orders).await;
                self.opened(&way, false);
            }
            // What was ordered of an instrument that is away is not done later.
            while orders.try_recv().is_ok() {}
            tokio::time::sleep(AGAIN).await;
        }
    }

    async fn read_line(&self, way: &Way, stream: Box<dyn Stream>, orders: &mut mpsc::Receiver<Sentence>) {
        let mut lines = Framed::new(stream, Lines::new());
        loop {
            tokio::select! {
                line = tokio::time::timeout(SILENCE, lines.next()) => match line {
                    Ok(Some(Ok(Some(line)))) => self.said(way, &line),
                    Ok(Some(Ok(None))) => self.dropped(way),
                    Ok(Some(Err(_)) | None) | Err(_) => return,
                },
                order = orders.recv() => match order {
                    Some(order) => {
                        if lines.send(order.line()).await.is_err() {
                            return;
                        }
                    }
                    None => return,
                },
            }
        }
    }

    fn opened(&self, way: &Way, there: bool) {
        let mut state = self.state();
        if let Some(line) = state.lines.get_mut(way) {
            line.shown.there = there;
        }
        if !there {
            let name = way.to_string();
            for instrument in state.instruments.values_mut().filter(|instrument| instrument.way == name) {
                instrument.there = false;
                instrument.live = None;
            }
        }
        drop(state);
        self.tell(RegistryEvent::Changed);
    }

    fn dropped(&self, way: &Way) {
        if let Some(line) = self.state().lines.get_mut(way) {
            line.shown.dropped += 1;
        }
        self.tell(RegistryEvent::Changed);
    }

    fn said(&self, way: &Way, line: &str) {
        match Sentence::parse(line) {
            Err(_) if line.trim().is_empty() => {}
            Err(_) => self.dropped(way),
            Ok(Sentence::Announce(announced)) => self.announce(announced, &way.to_string()),
            Ok(Sentence::Reading { id, reading }) => self.read(&id, reading),
            Ok(Sentence::LowBattery { id }) => self.changed(&id, |instrument| instrument.low_battery = true),
            Ok(Sentence::Fault { id, says }) => self.changed(&id, |instrument| instrument.fault = Some(says)),
            // What only a host says, a line gives back as an echo.
            Ok(Sentence::Ask { .. } | Sentence::Zero { .. }) => {}
        }
    }

    fn announce(&self, announced: Announced, way: &str) {
        let mut state = self.state();
        let id = announced.id.clone();
        if let Some(known) = state.instruments.get_mut(&id) {
            known.announced = announced;
            way.clone_into(&mut known.way);
            known.there = true;
        } else if state.instruments.len() < MOST_INSTRUMENTS {
            let way = way.to_owned();
            let on_registry = OnRegistry {
                announced,
                way,
                there: true,
                low_battery: false,
                fault: None,
                live: None,
                held: None,
            };
            state.instruments.insert(id, on_registry);
        }
        drop(state);
        self.tell(RegistryEvent::Changed);
    }

    fn changed(&self, id: &str, change: impl FnOnce(&mut OnRegistry)) {
        if let Some(instrument) = self.state().instruments.get_mut(id) {
            change(instrument);
        }
        self.tell(RegistryEvent::Changed);
    }

    fn read(&self, id: &str, reading: Reading) {
        let mut state = self.state();
        // Of an instrument that has not said what it is, or in a unit it does not read in, there is nothing to take.
        let known = state.instruments.get_mut(id);
        let Some(instrument) = known.filter(|known| known.announced.kind.reads_in(reading.unit)) else {
            return;
        };
        instrument.fault = None;
        if !reading.held {
            instrument.live = Some(reading);
            drop(state);
            return self.tell(RegistryEvent::Changed);
        }
        // A line that came twice is one reading.
        if instrument.held.is_some_and(|held| held.number == reading.number) {
            return;
        }
        instrument.held = Some(reading);
        instrument.live = Some(reading);
        let way = instrument.way.clone();
        let instrument = instrument.announced.clone();
        let overdue = instrument.is_overdue(jiff::Zoned::now().date());
        let held = Held { text: reading.text(), overdue, instrument, way, reading };
        drop(state);
        self.tell(RegistryEvent::Changed);
        self.tell(RegistryEvent::Held(Box::new(held)));
    }

    /// The instruments of a kind that are there.
    #[must_use]
    pub fn of_kind(&self, kind: Kind) -> Vec<OnRegistry> {
        let state = self.state();
        let there = state.instruments.values().filter(|one| one.there && one.announced.kind == kind);
        there.cloned().collect()
    }
}
