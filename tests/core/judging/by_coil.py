"""A course of one coil of several judged straight from stages, as a case of version 1 was: what a whole call is held against."""

from kettle.judging import readings
from kettle.judging.coils import state_of
from kettle.judging.course import judge_course
from kettle.judging.siblings import together


def judge_coil_course(unit, stages_by_coil, done_by_coil, number=1, ages_by_coil=None):
    """The course of one coil (1 is the first). Where nobody said how other boxes do, the other coils as found are its siblings."""
    stages = [dict(stage) for stage in stages_by_coil[number - 1]]
    if len(stages_by_coil) > 1 and not any("siblings" in stage for stage in stages):
        others = [stages_of[0] for place, stages_of in enumerate(stages_by_coil, start=1) if place != number]
        found = together([state_of(readings.work_out(unit, other)) for other in others]).observation
        if found is not None:
            stages[0]["siblings"] = found
    return judge_course(unit, stages, done_by_coil[number - 1], ages_by_coil[number - 1] if ages_by_coil is not None else None)


def coil_ages_min(case):
    """How old each standing observation of a case of version 1 was when its last was taken, by coil, minutes, where times are given."""
    latest = max((entry.at for entry in case.observations if entry.at is not None), default=None)
    return [
        {
            entry.key: (latest - entry.at).total_seconds() / 60.0
            for entry in case.in_order()
            if latest is not None and entry.at is not None and entry.belongs_to(number)
        }
        for number in range(1, (case.unit.evaporators or 1) + 1)
    ]
