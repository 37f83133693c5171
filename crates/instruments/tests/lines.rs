//! The shelf over real lines: TCP and a pseudo-terminal, cut, doubled, broken, gone and back.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::time::Duration;

use derecho_instruments::connection::Way;
use derecho_instruments::instrument::{Kind, Unit};
use derecho_instruments::message::Sentence;
use derecho_instruments::registry::{OnRegistry, Registry, RegistryEvent, RegistryFault};
use derecho_instruments::simulator::StandIn;
use tokio::io::{AsyncReadExt as _, AsyncWriteExt as _};
use tokio::net::TcpListener;
use tokio::sync::broadcast::Receiver;

const LONG: Duration = Duration::from_secs(20);

/// Waits until the shelf shows it.
async fn until(registry: &Registry, events: &mut Receiver<RegistryEvent>, holds: impl Fn(&Registry) -> bool) {
    tokio::time::timeout(LONG, async {
        while !holds(registry) {
            events.recv().await.unwrap();
        }
    })
    .await
    .unwrap_or_else(|_| unreachable!("never shown: {:?}", registry.shown()));
}

fn the(registry: &Registry) -> Option<OnRegistry> {
    registry.shown().instruments.into_iter().next()
}

fn way_to(listener: &TcpListener) -> Way {
    Way::parse(&format!("tcp:{}", listener.local_addr().unwrap())).unwrap()
}

#[track_caller]
fn held(events: &mut Receiver<RegistryEvent>) -> impl Future<Output = f64> + '_ {
    let at = std::panic::Location::caller();
    async move { held_at(events, at).await }
}

async fn held_at(events: &mut Receiver<RegistryEvent>, at: &std::panic::Location<'_>) -> f64 {
    tokio::time::timeout(LONG, async {
        loop {
            if let RegistryEvent::Held(held) = events.recv().await.unwrap() {
                return held.reading.value;
            }
        }
    })
    .await
    .unwrap_or_else(|_| unreachable!("nothing was held at {at}"))
}

#[tokio::test]
async fn a_stand_in_over_tcp_is_asked_and_set_to_nought() {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let way = way_to(&listener);
    let tape = StandIn::of(Kind::Tape, Unit::Millimetres, vec![161.5, 142.0]);
    let id = tape.announced.id.clone();
    tokio::spawn(async move { tape.serve(&listener).await });
    let registry = Registry::default();
    let mut events = registry.listen();
    assert_eq!(registry.order(Sentence::Ask { id: id.clone() }), Err(RegistryFault::Unknown));
    registry.join(&way).unwrap();
    registry.join(&way).unwrap();
    until(&registry, &mut events, |registry| the(registry).is_some_and(|one| one.live.is_some())).await;
    assert_eq!(registry.shown().ways.len(), 1, "joined twice it is joined once");
    let one = the(&registry).unwrap();
    assert_eq!((one.announced.kind, one.live.unwrap().value, one.held), (Kind::Tape, 161.5, None));
    registry.order(Sentence::Ask { id: id.clone() }).unwrap();
    assert_eq!(held(&mut events).await, 161.5);
    registry.order(Sentence::Ask { id: id.clone() }).unwrap();
    assert_eq!(held(&mut events).await, 142.0);
    registry.order(Sentence::Zero { id: id.clone() }).unwrap();
    registry.order(Sentence::Ask { id }).unwrap();
    assert_eq!(held(&mut events).await, 0.0, "161.5 less what it was set to nought at");
    assert!(registry.leave(&way) && !registry.leave(&way));
    assert_eq!(registry.shown(), Default::default());
}

#[cfg(unix)]
#[tokio::test]
async fn a_stand_in_on_a_pseudo_terminal_is_read_as_one_over_tcp() {
    let finder = StandIn::of(Kind::Finder, Unit::Degrees, vec![10.8]);
    let id = finder.announced.id.clone();
    let (tell, reported) = tokio::sync::oneshot::channel();
    tokio::spawn(async move { finder.serve_terminal(|path| tell.send(path.to_owned()).unwrap()).await });
    let way = Way::parse(&format!("serial:{}", reported.await.unwrap())).unwrap();
    let registry = Registry::default();
    let mut events = registry.listen();
    registry.join(&way).unwrap();
    until(&registry, &mut events, |registry| the(registry).is_some_and(|one| one.live.is_some())).await;
    registry.order(Sentence::Ask { id }).unwrap();
    assert_eq!(held(&mut events).await, 10.8);
}

/// What a line may bring: half a line, rubbish, a line far too long, a bad checksum, one line twice; and then it is
/// cut, and comes back.
#[tokio::test]
async fn a_bad_line_is_dropped_and_a_lost_one_comes_back() {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let way = way_to(&listener);
    let tape = StandIn::of(Kind::Tape, Unit::Inches, vec![6.375]);
    let announce = Sentence::Announce(tape.announced.clone()).line();
    let id = tape.announced.id.clone();
    let reading = |number: u64, value: f64| {
        let reading = derecho_instruments::instrument::Reading {
            number,
            value,
            unit: Unit::Inches,
            held: true,
            place: None,
        };
        Sentence::Reading { id: id.clone(), reading }.line()
    };
    let registry = Registry::default();
    let mut events = registry.listen();
    registry.join(&way).unwrap();
    let (mut line, _) = listener.accept().await.unwrap();
    let (first, second) = reading(7, 6.375).split_at(20).map_owned();
    line.write_all(format!("{announce}\r\n{first}").as_bytes()).await.unwrap();
    line.flush().await.unwrap();
    line.write_all(format!("{second}\n").as_bytes()).await.unwrap();
    assert_eq!(held(&mut events).await, 6.375, "in two pieces it is one line");
    let again = reading(7, 6.375);
    let broken = reading(8, 9.0).replace("n=8", "n=9");
    line.write_all(format!("{again}\n{broken}\n\n{}\n", "x".repeat(5000)).as_bytes()).await.unwrap();
    line.write_all(b"\xff\xfe\n").await.unwrap();
    // In another unit than it announced it reads in none.
    let reading_in_degrees = {
        let reading = derecho_instruments::instrument::Reading {
            number: 9,
            value: 1.0,
            unit: Unit::Degrees,
            held: true,
            place: None,
        };
        Sentence::Reading { id: id.clone(), reading }.line()
    };
    line.write_all(format!("{reading_in_degrees}\n{}\n", reading(10, 6.5)).as_bytes()).await.unwrap();
    assert_eq!(held(&mut events).await, 6.5, "neither the doubled, nor the broken, nor the foreign one");
    assert_eq!(registry.shown().ways[0].dropped, 3, "{:?}", registry.shown());
    drop(line);
    until(&registry, &mut events, |registry| the(registry).is_some_and(|one| !one.there)).await;
    assert_eq!(registry.order(Sentence::Ask { id: id.clone() }), Err(RegistryFault::Away));
    let (mut line, _) = listener.accept().await.unwrap();
    line.write_all(format!("{announce}\n").as_bytes()).await.unwrap();
    until(&registry, &mut events, |registry| the(registry).is_some_and(|one| one.there)).await;
    registry.order(Sentence::Ask { id: id.clone() }).unwrap();
    let mut asked = vec![0; 200];
    let count = line.read(&mut asked).await.unwrap();
    let asked = String::from_utf8(asked[..count].to_vec()).unwrap();
    assert_eq!(Sentence::parse(asked.trim_end()), Ok(Sentence::Ask { id }));
}

/// Whatever comes before it, a sound line behind a line's end is read: nothing stalls, nothing panics.
#[tokio::test]
async fn a_sound_line_is_read_behind_any_bytes() {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let registry = Registry::default();
    let mut events = registry.listen();
    registry.join(&way_to(&listener)).unwrap();
    let (mut line, _) = listener.accept().await.unwrap();
    let tape = StandIn::of(Kind::Tape, Unit::Millimetres, vec![1.0]);
    let id = tape.announced.id.clone();
    line.write_all(format!("{}\n", Sentence::Announce(tape.announced).line()).as_bytes()).await.unwrap();
    // A plain generator of bytes: the constants of Numerical Recipes.
    let mut state = 1_u32;
    let mut byte = || {
        state = state.wrapping_mul(1_664_525).wrapping_add(1_013_904_223);
        (state >> 24) as u8
    };
    for number in 1..=40_u64 {
        let length = usize::from(byte()) * 8;
        let rubbish: Vec<u8> = (0..length).map(|_| byte()).collect();
        line.write_all(&rubbish).await.unwrap();
        let value = f64::from(u32::try_from(number).unwrap()) / 4.0;
        let reading = derecho_instruments::instrument::Reading {
            number,
            value,
            unit: Unit::Millimetres,
            held: true,
            place: None,
        };
        let sound = Sentence::Reading { id: id.clone(), reading }.line();
        line.write_all(format!("\n{sound}\n").as_bytes()).await.unwrap();
        assert_eq!(held(&mut events).await, value, "after {length} bytes");
    }
    assert!(registry.shown().ways[0].dropped > 40, "{:?}", registry.shown().ways);
    assert!(registry.shown().ways[0].there, "the line stays open");
}

/// A unit, a battery, a fault: each is shown, and a reading clears the fault.
#[tokio::test]
async fn what_ails_an_instrument_is_shown() {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let registry = Registry::default();
    let mut events = registry.listen();
    registry.join(&way_to(&listener)).unwrap();
    let (mut line, _) = listener.accept().await.unwrap();
    let wrench = StandIn::of(Kind::Wrench, Unit::NewtonMetres, vec![120.0]);
    let id = wrench.announced.id.clone();
    let reading = derecho_instruments::instrument::Reading {
        number: 1,
        value: 120.0,
        unit: Unit::NewtonMetres,
        held: false,
        place: None,
    };
    for said in [
        // Of an instrument that has not said what it is there is nothing to show.
        Sentence::LowBattery { id: id.clone() },
        Sentence::Announce(wrench.announced),
        Sentence::LowBattery { id: id.clone() },
        Sentence::Fault { id: id.clone(), says: "ratchet jammed".to_owned() },
    ] {
        line.write_all(format!("{}\n", said.line()).as_bytes()).await.unwrap();
    }
    until(&registry, &mut events, |registry| the(registry).is_some_and(|one| one.fault.is_some())).await;
    let one = the(&registry).unwrap();
    assert_eq!((one.low_battery, one.fault.as_deref()), (true, Some("ratchet jammed")));
    assert_eq!(registry.of_kind(Kind::Wrench).len(), 1);
    assert_eq!(registry.of_kind(Kind::Tape).len(), 0);
    line.write_all(format!("{}\n", Sentence::Reading { id, reading }.line()).as_bytes()).await.unwrap();
    until(&registry, &mut events, |registry| the(registry).is_some_and(|one| one.fault.is_none())).await;
}

trait MapOwned {
    fn map_owned(self) -> (String, String);
}

impl MapOwned for (&str, &str) {
    fn map_owned(self) -> (String, String) {
        (self.0.to_owned(), self.1.to_owned())
    }
}
