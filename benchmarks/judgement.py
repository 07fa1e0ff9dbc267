"""How well the judgement does on the case files, in sight and out of sight of tuning: python -m benchmarks.judgement"""

from tests.core.judging.scoring import report

if __name__ == "__main__":
    print(report())
