/* One's own progress by cause and skill: kept on this device, for this person, and nowhere else. */
"use strict";

const PROGRESS = `yard-progress:${document.body.dataset.drafts || ""}`;

const readProgress = () => {
  try {
    return JSON.parse(localStorage.getItem(PROGRESS)) || {
      done: {}
    };
  } catch {
    return {
      done: {}
    };
  }
};

const told = document.querySelector("[data-progress]");
const skills = document.getElementById("skills");
if (told && skills) {
  const progress = readProgress();
  progress.done[told.dataset.progress] = {
    ...JSON.parse(skills.textContent),
    lesson: told.dataset.lesson,
    shown: told.dataset.shown === "yes"
  };
  localStorage.setItem(PROGRESS, JSON.stringify(progress));
}

/* Marks of lessons, and one's own progress in words, where they are shown. */
const rows = Object.values(readProgress().done);
document.querySelectorAll("[data-lesson-line]").forEach((line) => {
  const tried = rows.filter((row) => row.lesson === line.dataset.lessonLine);
  if (tried.length) {
    line.querySelector("[data-mark]").textContent = tried.some(
        (row) => row.shown
      ) ?
      "● shown" :
      "◐ tried";
  }
});

const count = document.querySelector("[data-done-count]");
if (count && rows.length) {
  const done = new Set(
    rows.filter((row) => row.shown && row.lesson).map((row) => row.lesson)
  );
  count.textContent = `${done.size} shown so far.`;
}

const own = document.querySelector("[data-own-progress]");
if (own && rows.length) {
  own.hidden = false;
  const sums = {};
  rows.forEach((row) => [
    ...Object.entries(row.skills || {}),
    ...Object.entries(row.labels || {}).map(([code, label]) => [
      label,
      (row.causes || {})[code]
    ])
  ].forEach(([name, well]) => {
    const [good, all] = sums[name] || [0, 0];
    sums[name] = [good + well, all + 1];
  }));
  Object.entries(sums).forEach(([name, [good, all]]) => {
    const line = document.createElement("tr");
    const head = document.createElement("th");
    head.scope = "row";
    head.textContent = name;
    const cell = document.createElement("td");
    cell.className = "fig";
    cell.textContent = `${good} of ${all}`;
    line.append(head, cell);
    own.querySelector("[data-progress-rows]").append(line);
  });
}

/* Shown to who teaches only when the learner sends it. */
const share = document.querySelector("[data-share-progress]");
if (share && rows.length) {
  const sums = {};
  rows.forEach((row) =>
    Object.entries(row.skills || {}).forEach(([name, well]) => {
      const [good, all] = sums[name] || [0, 0];
      sums[name] = [good + well, all + 1];
    })
  );
  share.elements.words.value = Object.entries(sums)
    .map(([name, [good, all]]) => `${name} ${good} of ${all}`)
    .join("; ");
  share.hidden = false;
}
