<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Cures\OtherChain;
use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** E19-chain: leads in a cable chain, by fill and by bend. */
final class ChainFill implements Curable
{
    public function card(): Card
    {
        return new Card(
            'E19-chain',
            'Cable chain',
            'Is there room for its leads in this chain, and is its bend wide enough for the thickest?',
            Trade::Electrical,
            'Fill of 60 % and a bend of 10 × diameter: common practice, no source',
            ['fill' => Threshold::share('share of the opening that holds', 0.6)],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::LeadsMove) as $ref => $fitted) {
            if (self::in($survey, $ref) !== []) {
                yield new Subject('need', $ref, $fitted->need->role, [$ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $chain = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        [$width, $height, $radius] = $inquiry->readAll(
            $chain,
            [
                'w' => 'inner_width',
                'h' => 'inner_height',
                'R' => 'bend_radius',
            ],
            Bound::Lowest,
        );
        $sum = Quantity::of(0, 'mm²');
        $thickest = Quantity::of(0, 'mm');
        $symbols = [];
        foreach (self::in($survey, $inquiry->subject->ref) as $i => $lead) {
            if ($lead->diameter === null) {
                $inquiry->miss("diameter of {$lead->ref}", "leads/{$lead->ref}/diameter");

                continue;
            }
            $symbols['d_'.($i + 1)] = $inquiry->given(
                "diameter of {$lead->ref}",
                'd_'.($i + 1),
                $lead->diameter,
                Evidence::Measured,
                "leads/{$lead->ref}/diameter",
            );
            $sum = $sum->plus($lead->diameter->squared()->times(M_PI / 4));
            $thickest = Quantity::max($thickest, $lead->diameter);
        }
        $length = $inquiry->read($chain, 'length', 'L_k', Bound::Highest);
        foreach (self::in($survey, $inquiry->subject->ref) as $lead) {
            if ($lead->length?->isBelow($length) === true) {
                $inquiry->work(
                    "{$lead->ref} beside its chain",
                    'k = l / L_k',
                    ['l' => $lead->length, 'L_k' => $length],
                    $lead->length->over($length),
                    '%',
                );

                return $inquiry->conclude(
                    Verdict::Fails,
                    "{$lead->ref} is {$lead->length} long, and the chain {$length}: it does not reach both ends. Travel by two, the bend and the ends come on top.",
                    $inquiry->margin($length, $lead->length),
                    "{$length} and the ends",
                );
            }
        }
        $fill = $inquiry->work(
            'Fill',
            'k = Σ π/4 × d² / (w × h)',
            $symbols + ['w' => $width, 'h' => $height],
            $sum->over($width->times($height)),
            '%',
        );
        $least = $inquiry->work(
            'Bend the thickest lead wants',
            'R_min = 10 × d',
            ['d' => $thickest],
            $thickest->times(10),
            'mm',
        );
        $limit = $inquiry->threshold('fill');
        $verdict = match (true) {
            $fill->exceeds(Quantity::ratio(1)), $radius->isBelow($least->times(0.75)) => Verdict::Fails,
            $fill->exceeds($limit), $radius->isBelow($least) => Verdict::Tight,
            default => Verdict::Holds,
        };

        return $inquiry->conclude(
            $verdict,
            "{$fill} of its opening is filled (at most {$limit}); it bends to {$radius}, and its thickest lead wants {$least}.",
            $inquiry->margin($fill, $limit),
            "{$limit}, and a bend of {$least}",
        );
    }

    public function cures(): array
    {
        return [new OtherChain];
    }

    public function examples(): Examples
    {
        $file = static fn (string $diameter): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                Examples::part('fan', 'fan', ['rated_current' => '0.1 A']),
                Examples::part('chain', 'cable_chain', [
                    'inner_width' => '15 mm',
                    'inner_height' => '10 mm',
                    'bend_radius' => '28 mm',
                    'length' => '0.6 m',
                ]),
            ],
            [
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'psu.out',
                        'to' => 'fan.power',
                        'chain' => 'chain',
                        'diameter' => $diameter,
                    ],
                ],
            ],
        );

        return new Examples(static fn (): array => $file('8 mm'), static fn (): array => $file('2.6 mm'), Verdict::Fails);
    }

    /**
     * @return list<Lead>
     */
    private static function in(Survey $survey, string $chain): array
    {
        return array_values(array_filter($survey->build->leads, static fn (Lead $l): bool => $l->liesIn($chain)));
    }
}
