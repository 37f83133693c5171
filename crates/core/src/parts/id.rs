//! What rows are told apart by where others point at them. A name is for people and may change; an id stays.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Declares ids that cannot be taken for one another, nor for a name.
#[macro_export]
#[doc(hidden)]
macro_rules! ids {
    ($($(#[$doc:meta])* $name:ident;)*) => {$(
        $(#[$doc])*
        #[derive(Clone, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
        #[serde(transparent)]
        #[schema(value_type = String)]
        pub struct $name(String);

        impl $name {
            /// An id as it is written in a document.
            #[must_use]
            pub fn new(written: impl Into<String>) -> Self {
                Self(written.into())
            }

            /// As it is written.
            #[must_use]
            pub fn as_str(&self) -> &str {
                &self.0
            }

            /// Whether nothing is pointed at.
            #[must_use]
            pub fn is_empty(&self) -> bool {
                self.0.is_empty()
            }
        }
    )*};
}

ids! {
    /// Of a bracket of a job. Empty is the bracket that is there.
    BracketId;
    /// Of a hole of one bracket. Empty is where the eye was found.
    HoleId;
    /// Of a bar of a job. Empty is the bar as found.
    BarId;
    /// Of a drag-link part of a job. Empty is none.
    DragLinkId;
}
