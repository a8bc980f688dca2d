<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;

/** M11-box: whether what stands in a cabinet goes into it, and leaves room for leads and hands. */
final class BodyInBox implements Check
{
    private const BODY = ['body_length', 'body_width', 'body_height'];

    public function card(): Card
    {
        return new Card(
            'M11-box',
            'Room in the cabinet',
            'Does each part go into its cabinet, and is its back wall wide enough for all of them?',
            Trade::Mechanical,
            'Sides against sides, the longest first; 60 % of the largest wall for parts, the rest for leads, hands and air: common practice, no source',
            [
                'holds' => Threshold::share('share of the largest wall that parts may cover', 0.6),
                'tight' => Threshold::share('share above which it fails', 0.9),
            ],
            topics: [Topic::Cabinets],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->zones as $zone) {
            $box = $zone->box === null ? null : $survey->build->fitted($zone->box);
            if ($box?->part->can(Ability::Encloses) === true && $zone->holds !== []) {
                yield new Subject('zone', $zone->ref, $zone->name, [$box->need->ref, ...$zone->holds]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $zone = $inquiry->build->zones[$inquiry->subject->ref];
        $box = $inquiry->build->fitted($zone->box ?? '') ?? $inquiry->lack("a cabinet for {$zone->name}");
        $inside = $this->sides(
            $inquiry->readAll($box, ['w' => 'width', 'h' => 'height', 'd' => 'depth'], Bound::Lowest),
        );
        $wall = $inquiry->work(
            'Its largest wall',
            'A = a × b',
            ['a' => $inside[0], 'b' => $inside[1]],
            $inside[0]->times($inside[1]),
            'cm²',
        );
        $covered = Quantity::of(0, 'cm²');
        $terms = $outside = $unknown = [];
        foreach ($zone->holds as $ref) {
            $fitted = $inquiry->build->fitted($ref);
            if ($fitted === null || $fitted->part->family->field(self::BODY[0]) === null) {
                continue;
            }
            $body = $this->body($inquiry, $fitted);
            if ($body === null) {
                $unknown[$fitted->part->ref] = $fitted->need->role;

                continue;
            }
            foreach ($body as $i => $side) {
                if ($side->exceeds($inside[$i])) {
                    $outside[] = "{$fitted->need->role} is {$side} where {$inside[$i]} are free";
                    break;
                }
            }
            // Flat on the wall, with its two longest sides.
            $terms["A_{$ref}"] = $body[0]->times($body[1])->times($fitted->need->quantity)->to('cm²');
            $covered = $covered->plus($terms["A_{$ref}"]);
        }
        foreach ($unknown as $part => $role) {
            $inquiry->missUntil(Stage::Bought, "size of {$role}", "parts/{$part}/specs/".self::BODY[0]);
        }
        if ($outside !== []) {
            return $inquiry->conclude(Verdict::Fails, ucfirst(implode('; ', $outside)).'.');
        }
        if ($terms === []) {
            return $inquiry->isIncomplete()
                ? $inquiry->unproven()
                : $inquiry->conclude(Verdict::Holds, 'Nothing that has a size stands in it.');
        }
        $covered = $inquiry->work(
            'What parts cover of it',
            'A_p = '.implode(' + ', array_keys($terms)),
            $terms,
            $covered,
            'cm²',
        );
        $verdict = $inquiry->band(
            $covered,
            $wall,
            $inquiry->threshold('holds'),
            $inquiry->threshold('tight'),
            Verdict::Fails,
        );

        return $inquiry->conclude(
            $verdict,
            "Parts cover {$covered} of {$wall}: {$covered->over($wall)->to('%')}.".
                ($verdict === Verdict::Holds ? '' : ' Leads, hands and air want the rest.'),
            $inquiry->margin($covered, $wall),
            "{$inquiry->threshold('holds')->to('%')} of {$wall}",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $length): array => Examples::file(
            [
                Examples::part('box', 'cabinet', ['width' => '300 mm', 'height' => '400 mm', 'depth' => '150 mm']),
                Examples::part('psu', 'power_supply', [
                    'body_length' => $length,
                    'body_width' => '110 mm',
                    'body_height' => '50 mm',
                ]),
            ],
            ['zones' => [['ref' => 'z', 'name' => 'Cabinet', 'kind' => 'cabinet', 'box' => 'box', 'holds' => ['psu']]]],
        );

        return new Examples(
            static fn (): array => $file('420 mm'),
            static fn (): array => $file('215 mm'),
            Verdict::Fails,
        );
    }

    /**
     * @return array{Quantity, Quantity, Quantity}|null its sides, the longest first; null when one is not known
     */
    private function body(Inquiry $inquiry, Fitted $fitted): ?array
    {
        $sides = [];
        foreach (self::BODY as $i => $key) {
            $sides[] = $inquiry->tryRead($fitted, $key, "l_{$fitted->need->ref}_{$i}", Bound::Highest);
        }
        $known = array_values(array_filter($sides));

        return count($known) < 3 ? null : $this->sides($known);
    }

    /**
     * @param  list<Quantity>  $sides  three of them
     * @return array{Quantity, Quantity, Quantity} the longest first
     */
    private function sides(array $sides): array
    {
        usort($sides, static fn (Quantity $a, Quantity $b): int => $b->in('mm') <=> $a->in('mm'));

        return [$sides[0], $sides[1], $sides[2]];
    }
}
