//! Documents as they lie on the disk: compressed, most of them against an earlier revision of the same job, each
//! with a checksum over what it says. Ten thousand edits of a job take a few megabytes.
//!
//! Not here: which revision is which (`lib`).

use std::io::Read;

use zstd::bulk::Compressor;

/// Every so many revisions a document stands by itself, so that none is far from what it needs.
pub(crate) const WHOLE_EVERY: u64 = 50;

/// A document on the disk.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) struct Packed {
    /// The bytes.
    pub(crate) bytes: Vec<u8>,
    /// The revision it is told against; None where it stands by itself.
    pub(crate) against: Option<u64>,
}

/// Level of compression: most of the gain, in well under a millisecond.
const LEVEL: i32 = 3;
/// No job is larger; what says it is, is damaged.
const LARGEST: u64 = 64 * 1024 * 1024;

/// Packs a document by itself, or against an earlier one.
pub(crate) fn pack(text: &str, against: Option<(u64, &str)>) -> std::io::Result<Packed> {
    let dictionary = against.map_or(&[][..], |(_, earlier)| earlier.as_bytes());
    let mut compressor = Compressor::with_dictionary(LEVEL, dictionary)?;
    compressor.include_checksum(true)?;
    Ok(Packed { bytes: compressor.compress(text.as_bytes())?, against: against.map(|(number, _)| number) })
}

/// Unpacks a document with the one it was packed against.
///
/// # Errors
/// Where its checksum, or its form, says that it is damaged.
pub(crate) fn unpack(bytes: &[u8], earlier: Option<&str>) -> std::io::Result<String> {
    let dictionary = earlier.unwrap_or_default().as_bytes();
    let mut text = String::new();
    zstd::stream::Decoder::with_dictionary(bytes, dictionary)?.take(LARGEST).read_to_string(&mut text)?;
    Ok(text)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn what_is_packed_comes_back_and_a_flipped_bit_never_passes(
            text in "[ -~]{0,400}", earlier in "[ -~]{0,400}", alone: bool, at: prop::sample::Index, bit in 0..8_u8,
        ) {
            let against = (!alone).then_some((7, earlier));
            let packed = pack(&text, against.as_ref().map(|(number, earlier)| (*number, earlier.as_str()))).unwrap();
            let earlier = against.as_ref().map(|(_, earlier)| earlier.as_str());
            prop_assert_eq!(&unpack(&packed.bytes, earlier).unwrap(), &text);
            prop_assert_eq!(packed.against, earlier.map(|_| 7));
            let mut damaged = packed.bytes.clone();
            let place = at.index(damaged.len());
            damaged[place] ^= 1 << bit;
            // It is refused, or the bit meant nothing.
            prop_assert!(unpack(&damaged, earlier).map_or(true, |back| back == text));
        }
    }
}
