//! `derecho instruments`: what is on a way in, its readings as they come, and stand-ins.

use std::io::Write as _;
use std::net::SocketAddr;
use std::time::Duration;

use clap::Subcommand;
use derecho_instruments::connection::Way;
use derecho_instruments::instrument::{Kind, Unit};
use derecho_instruments::registry::{Registry, RegistryEvent};
use derecho_instruments::simulator::StandIn;
use tokio::net::TcpListener;

/// How long instruments have to say what they are: they do so every ten seconds.
const LOOK: Duration = Duration::from_secs(11);

#[derive(Debug, Subcommand)]
pub(crate) enum Instruments {
    /// Print the instruments on one or more ways in.
    List {
        /// `tcp:HOST:PORT` or `serial:/dev/DEVICE@BAUD`.
        #[arg(required = true)]
        ways: Vec<String>,
    },
    /// Print every reading that is held, until stopped.
    Listen {
        /// `tcp:HOST:PORT` or `serial:/dev/DEVICE@BAUD`.
        #[arg(required = true)]
        ways: Vec<String>,
    },
    /// Be a simulated instrument, until stopped.
    Simulate {
        /// `tape`, `finder`, `wrench`, `scales`, `height_stick` or `turn_counter`.
        #[arg(value_parser = kind)]
        kind: Kind,
        /// What it reads, one after another.
        #[arg(long, value_delimiter = ',', required = true, allow_hyphen_values = true)]
        values: Vec<f64>,
        /// Its unit; if left out, the first one it has.
        #[arg(long, value_parser = unit)]
        unit: Option<Unit>,
        /// Address to listen on.
        #[arg(long, default_value = "127.0.0.1:0", conflicts_with = "terminal")]
        listen: SocketAddr,
        /// On a pseudo-terminal instead.
        #[arg(long)]
        terminal: bool,
    },
}

fn kind(word: &str) -> Result<Kind, String> {
    let words = Kind::ALL.map(Kind::word).join(", ");
    Kind::of_word(word).ok_or_else(|| format!("it is one of {words}"))
}

fn unit(word: &str) -> Result<Unit, String> {
    let words = Unit::ALL.map(Unit::word).join(", ");
    Unit::of_word(word).ok_or_else(|| format!("it is one of {words}"))
}

fn print(text: &str) -> Result<(), String> {
    let mut out = std::io::stdout().lock();
    writeln!(out, "{text}").and_then(|()| out.flush()).map_err(|error| error.to_string())
}

/// Joins every way.
fn joined(ways: &[String]) -> Result<Registry, String> {
    let registry = Registry::default();
    for way in ways {
        let way = Way::parse(way).map_err(|fault| fault.to_string())?;
        registry.join(&way).map_err(|fault| fault.to_string())?;
    }
    Ok(registry)
}

async fn list(ways: &[String]) -> Result<(), String> {
    let registry = joined(ways)?;
    let mut events = registry.listen();
    let all_there = |registry: &Registry| {
        let shown = registry.shown();
        shown
            .ways
            .iter()
            .all(|way| shown.instruments.iter().any(|one| one.way == way.way && one.live.is_some()))
    };
    let waiting = async {
        while !all_there(&registry) {
            if events.recv().await.is_err() {
                return;
            }
        }
    };
    // What is not there by then is told as not there.
    let _ = tokio::time::timeout(LOOK, waiting).await;
    let shown = registry.shown();
    for way in &shown.ways {
        let on_it: Vec<_> = shown.instruments.iter().filter(|one| one.way == way.way).collect();
        if on_it.is_empty() {
            print(&format!(
                "{}: {}",
                way.way,
                if way.there { "connected but has not identified itself" } else { "no answer" }
            ))?;
        }
        for one in on_it {
            let shows = one.live.map_or_else(|| "nothing yet".to_owned(), |live| live.text());
            let checked = one.announced.checked.map_or_else(|| "never".to_owned(), |date| date.to_string());
            print(&format!(
                "{}: {}, {}, good to {} {}, checked {checked}, shows {shows}",
                way.way,
                one.announced.id,
                one.announced.kind.word(),
                one.announced.good_to,
                one.announced.unit.word()
            ))?;
        }
    }
    Ok(())
}

/// Runs one of them.
pub(crate) async fn run(what: Instruments) -> Result<(), String> {
    match what {
        Instruments::List { ways } => list(&ways).await,
        Instruments::Listen { ways } => {
            let registry = joined(&ways)?;
            let mut events = registry.listen();
            loop {
                match events.recv().await {
                    Ok(RegistryEvent::Held(held)) => {
                        print(&format!("{}: {}", held.instrument.id, held.text))?;
                    }
                    Ok(RegistryEvent::Changed) | Err(tokio::sync::broadcast::error::RecvError::Lagged(_)) => {
                    }
                    Err(_) => return Ok(()),
                }
            }
        }
        Instruments::Simulate { kind, values, unit, listen, terminal } => {
            let first = Unit::ALL.into_iter().find(|unit| kind.reads_in(*unit));
            let unit = unit.or(first).ok_or("it reads in no unit")?;
            if !kind.reads_in(unit) {
                return Err(format!("a {} does not read in {}", kind.word(), unit.word()));
            }
            let stand_in = StandIn::of(kind, unit, values);
            if terminal {
                return stand_in
                    .serve_terminal(|path| {
                        let _ = print(&format!("serial:{path}"));
                    })
                    .await
                    .map_err(|error| error.to_string());
            }
            let listener = TcpListener::bind(listen).await.map_err(|error| format!("{listen}: {error}"))?;
            let address = listener.local_addr().map_err(|error| error.to_string())?;
            print(&format!("tcp:{address}"))?;
            stand_in.serve(&listener).await.map_err(|error| error.to_string())
        }
    }
}
