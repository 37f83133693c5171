// The client's own texts in the words of another country.
import assert from "node:assert/strict";
import { chosenEnglish, ENGLISHES, inEnglish } from "../src/measure/english";

type Test = (name: string, run: () => void) => void;

export function englishCases(test: Test) {
  test("each country has its own words", () => {
    const says = "Center the axle: jack stands, jam nuts, bushings and tires.";
    assert.equal(inEnglish("us")(says), says);
    assert.equal(inEnglish("uk")(says), "Centre the axle: axle stands, lock nuts, bushes and tyres.");
    assert.equal(inEnglish("ca")(says), "Centre the axle: jack stands, jam nuts, bushings and tires.");
    assert.equal(inEnglish("au")("Fender"), "Guard");
  });
  test("the longest word is taken, and whole words alone", () => {
    const uk = inEnglish("uk");
    assert.equal(uk("torque wrench"), "torque wrench");
    assert.equal(uk("a wrench"), "a spanner");
    assert.equal(uk("wrenching"), "wrenching");
    assert.equal(uk("a sway bar"), "an anti-roll bar");
    assert.equal(uk("track bar (Panhard rod)"), "Panhard rod (track bar)");
  });
  test("saying it twice says it once", () => {
    for (const english of ENGLISHES) {
      const say = inEnglish(english);
      const once = say("Center the track bar, the sway bar and the lug nuts");
      assert.equal(say(once), once, english);
    }
  });
  test("the English chosen is the cookie's", () => {
    assert.equal(chosenEnglish("theme=night; english=au"), "au");
    assert.equal(chosenEnglish("english=martian"), "us");
    assert.equal(chosenEnglish(""), "us");
  });
}
