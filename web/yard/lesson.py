"""What the lesson of a practice call asks for, and how far it was shown."""

from kettle.yard.lessons import LESSONS, shown


def lesson_shown(code, steps, told=None):
    """What a lesson asks for, in words, and whether it was shown by these steps, and by the debrief once it is told; empty without one."""
    lesson = LESSONS.get(code)
    if lesson is None:
        return []
    found = shown(lesson, steps, told)
    return [(words, found[one]) for one, words in lesson.must_words]
