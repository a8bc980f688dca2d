<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** M17: whether a compressor gives a torch the air it takes. */
final class AirSupply implements Curable
{
    public function card(): Card
    {
        return new Card(
            'M17',
            'Air for the torch',
            'Does the compressor give the torch the air it takes, dry and at its pressure?',
            Trade::Mechanical,
            "Maker's flow and pressure; a fifth to spare, and dry air, are common practice, no source",
            ['holds' => Threshold::share('share of the flow the torch may take', 0.8)],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $compressors = array_keys([...$survey->build->fittedThat(Ability::Compresses)]);
        foreach ($survey->build->fittedThat(Ability::Arcs) as $ref => $fitted) {
            yield new Subject(
                'need',
                (string) $ref,
                $fitted->need->role,
                array_map(strval(...), [$ref, ...$compressors]),
            );
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $arc = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        [$takes, $needs] = $inquiry->readAll($arc, ['Q' => 'air_flow', 'p' => 'air_pressure'], Bound::Highest);
        $takes = $inquiry->together('Air all of them take', 'Q_a = n × Q', 'Q', $takes, $arc->need->quantity, 'L/min');
        $compressors = [...$inquiry->build->fittedThat(Ability::Compresses)];
        if ($compressors === []) {
            $inquiry->remark("It takes {$takes} at {$needs}.");

            return $inquiry->conclude(
                Verdict::Fails,
                "{$arc->need->role} takes {$takes} of air at {$needs}, and there is no compressor.",
            );
        }
        $gives = Quantity::of(0, 'L/min');
        $terms = [];
        $low = $wet = [];
        foreach ($compressors as $ref => $compressor) {
            [$flow, $pressure] = $inquiry->readAll(
                $compressor,
                ["Q_{$ref}" => 'flow', "p_{$ref}" => 'pressure'],
                Bound::Lowest,
            );
            $terms["Q_{$ref}"] = $flow->times($compressor->need->quantity);
            $gives = $gives->plus($terms["Q_{$ref}"]);
            if ($pressure->isBelow($needs)) {
                $low[] = "{$compressor->need->role} reaches {$pressure} where {$needs} are needed";
            }
            $dried =
                $inquiry->tryFlag($compressor, 'dried') ??
                $inquiry->miss(
                    "whether {$compressor->need->role} dries its air",
                    "parts/{$compressor->part->ref}/specs/dried",
                );
            if ($dried === false) {
                $wet[] = 'its air is wet, which eats electrodes: a dryer and filter before the torch';
            }
        }
        $inquiry->work('Air there is', 'Q_c = '.implode(' + ', array_keys($terms)), $terms, $gives, 'L/min');
        $verdict = $inquiry->band($takes, $gives, $inquiry->threshold('holds'), Quantity::ratio(1), Verdict::Fails);
        $says = ["it takes {$takes}, and there are {$gives} for long"];
        if ($verdict === Verdict::Fails) {
            $says[] = 'it cuts only as long as the tank lasts';
        }
        if ($low !== []) {
            $verdict = Verdict::Fails;
        } elseif ($wet !== [] && $verdict === Verdict::Holds) {
            $verdict = Verdict::Tight;
        }

        return $inquiry->conclude(
            $verdict,
            ucfirst(implode('; ', [...$low, ...$says, ...$wet])).'.',
            $inquiry->margin($takes, $gives),
            "{$inquiry->threshold('holds')->to('%')} of {$gives}",
        );
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        $file = static fn (string $flow): array => Examples::file([
            Examples::part('arc', 'arc_source', ['air_flow' => '150 L/min', 'air_pressure' => '5 bar']),
            Examples::part('air', 'compressor', ['flow' => $flow, 'pressure' => '8 bar', 'dried' => true]),
        ]);

        return new Examples(
            static fn (): array => $file('120 L/min'),
            static fn (): array => $file('220 L/min'),
            Verdict::Fails,
        );
    }
}
