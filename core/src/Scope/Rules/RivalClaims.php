<?php

declare(strict_types=1);

namespace Magpie\Core\Scope\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Scope\Cures\StrongerClaim;

/** S14: what is said of one value by several, such as a listing and a tape measure. */
final class RivalClaims implements Curable
{
    /** How far a value without a tolerance may be off and still be the same, as a share. Common practice, no source. */
    private const SAME = 0.01;

    public function card(): Card
    {
        return new Card(
            'S14',
            'Claims that differ',
            'Do those who speak of this value agree, and does the best of them count?',
            Trade::Workshop,
            'The claim with the strongest evidence counts; two that differ by more than their tolerances cannot both be right: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $needs = $labels = [];
        foreach ($survey->build->allFitted() as $ref => $fitted) {
            foreach ($fitted->part->family->sheet() as $field) {
                if (($fitted->part->spec($field->key)->rivals ?? []) !== []) {
                    // A part that fills several needs is spoken of once.
                    $at = "{$fitted->part->ref}/{$field->key}";
                    $needs[$at][] = (string) $ref;
                    $labels[$at] = "{$field->label} of {$fitted->part->name}";
                }
            }
        }
        foreach ($needs as $at => $filled) {
            yield new Subject('need', $at, $labels[$at], $filled);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $key = explode('/', $inquiry->subject->ref, 2)[1] ?? '';
        $fitted = $inquiry->build->fitted($inquiry->subject->needs[0] ?? '') ?? $inquiry->lack('a part for it');
        $rivals = $inquiry->claims($fitted, $key);
        $counts = array_shift($rivals) ?? $inquiry->lack('the value');
        $differ = [];
        $stronger = null;
        foreach ($rivals as $rival) {
            $inquiry->remark("Said too: {$rival->printed()}, {$rival->evidence->label()}.");
            if (! self::agree($counts, $rival)) {
                $differ[] = "{$rival->printed()} ({$rival->evidence->label()})";
                if (($stronger ?? $counts)->evidence->isWeakerThan($rival->evidence)) {
                    $stronger = $rival;
                }
            }
        }
        $says = "{$counts->printed()} ({$counts->evidence->label()}) counts";

        return match (true) {
            $differ === [] => $inquiry->conclude(Verdict::Holds, "{$says}, and the others agree."),
            $stronger !== null => $inquiry->conclude(
                Verdict::Fails,
                "{$says}, though {$stronger->printed()} rests on more ({$stronger->evidence->label()}).",
            ),
            default => $inquiry->conclude(
                Verdict::Tight,
                "{$says}; ".implode(' and ', $differ).' is said too. One of them is wrong: ask, or measure again.',
            ),
        };
    }

    public function cures(): array
    {
        return [new StrongerClaim];
    }

    public function examples(): Examples
    {
        $file = static function (string $said, string $evidence = 'listing'): array {
            $panel = Examples::part('panel', 'fan', []);
            $panel[0]['specs'] = [
                'rated_current' => [
                    'value' => $said,
                    'evidence' => $evidence,
                    'rivals' => [['value' => '0.2 A', 'evidence' => 'measured', 'tolerance' => '3 %']],
                ],
            ];

            return Examples::file([$panel]);
        };

        return new Examples(
            static fn (): array => $file('0.1 A'),
            static fn (): array => $file('0.2 A', 'datasheet'),
            Verdict::Fails,
        );
    }

    private static function beyond(Quantity $one, Quantity $other): bool
    {
        return $one->exceeds($other) && ($other->isZero() || $one->over($other)->in('') > 1 + self::SAME);
    }

    private static function agree(Spec $one, Spec $other): bool
    {
        [$low, $high, $from, $to] = [$one->lowest(), $one->highest(), $other->lowest(), $other->highest()];
        if ($low === null || $high === null || $from === null || $to === null) {
            return is_string($one->value) && is_string($other->value)
                ? mb_strtolower(trim($one->value)) === mb_strtolower(trim($other->value))
                : $one->value === $other->value;
        }

        return ! self::beyond($low, $to) && ! self::beyond($from, $high);
    }
}
