//! To which place a figure is written where figures are shortened: it is a matter of what the figure is, and not of what
//! its field is called. Lengths and angles say it by their type; a bare number says it where it is declared.

use std::cell::Cell;

use serde::{Serialize, Serializer};

/// What a figure is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Figure {
    /// What goes back into a document as it is: a typed figure's value, a move.
    Exact,
    /// A length, millimetres.
    Millimetres,
    /// An angle, degrees.
    Degrees,
    /// Anything else.
    #[default]
    Other,
}

thread_local! {
    static FIGURE: Cell<Figure> = const { Cell::new(Figure::Other) };
}

/// What the figure is that is being written on this thread.
#[must_use]
pub fn being_written() -> Figure {
    FIGURE.get()
}

fn written_as<T>(figure: Figure, write: impl FnOnce() -> T) -> T {
    struct Before(Figure);
    impl Drop for Before {
        fn drop(&mut self) {
            FIGURE.set(self.0);
        }
    }
    // What is exact stays exact, whatever stands within it.
    let before = FIGURE.get();
    let _before = Before(before);
    FIGURE.set(if before == Figure::Exact { before } else { figure });
    write()
}

/// Writes lengths in millimetres, as many as there are.
///
/// # Errors
/// Those of the serializer.
pub fn millimetres<T: Serialize + ?Sized, S: Serializer>(
    value: &T,
    serializer: S,
) -> Result<S::Ok, S::Error> {
    written_as(Figure::Millimetres, || value.serialize(serializer))
}

/// Writes angles in degrees, as many as there are.
///
/// # Errors
/// Those of the serializer.
pub fn degrees<T: Serialize + ?Sized, S: Serializer>(value: &T, serializer: S) -> Result<S::Ok, S::Error> {
    written_as(Figure::Degrees, || value.serialize(serializer))
}

/// Writes with every digit.
///
/// # Errors
/// Those of the serializer.
pub fn exactly<T: Serialize + ?Sized, S: Serializer>(value: &T, serializer: S) -> Result<S::Ok, S::Error> {
    written_as(Figure::Exact, || value.serialize(serializer))
}

#[cfg(test)]
mod tests {
    use super::*;

    /// What each number of a value is told to be while it is written.
    struct Told(f64);

    impl Serialize for Told {
        fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
            serializer.serialize_str(&format!("{:?} {}", being_written(), self.0))
        }
    }

    #[derive(Serialize)]
    struct Row {
        #[serde(serialize_with = "millimetres")]
        at: [Told; 2],
        #[serde(serialize_with = "exactly")]
        typed: Inner,
        rate: Told,
    }

    #[derive(Serialize)]
    struct Inner {
        #[serde(serialize_with = "degrees")]
        lean: Told,
    }

    #[test]
    fn a_figure_is_what_it_is_declared_to_be_and_exact_all_through() {
        let row = Row { at: [Told(1.0), Told(2.0)], typed: Inner { lean: Told(3.0) }, rate: Told(4.0) };
        assert_eq!(
            serde_json::to_string(&row).unwrap(),
            r#"{"at":["Millimetres 1","Millimetres 2"],"typed":{"lean":"Exact 3"},"rate":"Other 4"}"#
        );
        assert_eq!(being_written(), Figure::Other, "and nothing is left of it");
    }
}
