<?php

declare(strict_types=1);

namespace Magpie\Core\Commissioning\Rules;

use Magpie\Core\Commissioning\Expectations;
use Magpie\Core\Commissioning\Pointers;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Running\AsMeasured;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\Trade;

/** C01: what was measured on the machine, held against what should be there. */
final class ReadingInBand implements Check
{
    public function card(): Card
    {
        return new Card(
            'C01',
            'Reading in its band',
            'Does what was measured fit what is fitted?',
            Trade::Electrical,
            'R = V²/P; copper by IEC 60028 and earth bond by IEC 60204-1 §18 (from memory); bands of a tenth are common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach (AsMeasured::counting($survey->build) as $key => $reading) {
            $expected = Expectations::of($survey)->one($reading);
            if ($expected?->isKnown() === true) {
                yield new Subject('reading', $key, $expected->label, $reading->need === null ? [] : [$reading->need]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $expectations = Expectations::of($survey);
        $reading = AsMeasured::counting($inquiry->build)[$inquiry->subject->ref] ?? $inquiry->lack('the reading');
        $expected = $expectations->one($reading) ?? $inquiry->lack('what it should be');
        $value = $inquiry->given(
            lcfirst($expected->label).', read',
            'x',
            $reading->value,
            Evidence::Measured,
            "readings/{$reading->ref}/value",
        );
        $inquiry->absorb($expected->rests);
        $inquiry->remark($expected->why);
        $inquiry->work(
            'Off the middle of the band',
            'x − x₀',
            ['x' => $value, 'x₀' => $expected->nominal ?? $value],
            $expected->nominal === null ? $value : $value->minus($expected->nominal),
        );
        if ($reading->simulated) {
            $inquiry->remark('Read by a simulated instrument: it proves nothing of a real machine.');
        }
        foreach ($expected->missing as $what) {
            $inquiry->miss($what);
        }
        $verdict = $expected->verdict($reading);
        if ($verdict === Verdict::Unproven) {
            return $inquiry->unproven();
        }
        // A bond that is too high is what kills; all else will not work.
        $verdict = $verdict === Verdict::Fails && $expected->what === Measured::Bond ? Verdict::Danger : $verdict;
        // What else it may fit is asked only where it does not fit here.
        $points =
            $verdict === Verdict::Fails || $verdict === Verdict::Danger
                ? (new Pointers($inquiry->build, $expectations->all()))->of($expected, $reading)
                : [];
        foreach ($points as $point) {
            $inquiry->remark($point);
        }

        return $inquiry->conclude(
            $verdict,
            match ($verdict) {
                Verdict::Holds => "{$reading->value}, where {$expected->band()} is right.",
                Verdict::Tight => "{$reading->value} is nearer to the edge of {$expected->band()} than the instrument can tell.",
                default => "{$reading->value}, where {$expected->band()} is right.".
                    ($points === [] ? '' : " {$points[0]}"),
            },
            null,
            $expected->band(),
        );
    }

    public function examples(): Examples
    {
        $with = static fn (string $ohms): array => Examples::file([
            Examples::part('mat', 'heater', ['rated_power' => '75 W', 'rated_voltage' => '24 V']),
        ]) + ['readings' => [['ref' => 'R1', 'what' => 'cold_resistance', 'need' => 'mat', 'value' => $ohms]]];

        return new Examples(
            static fn (): array => $with('15.4 Ω'),
            static fn (): array => $with('7.7 Ω'),
            Verdict::Fails,
        );
    }
}
