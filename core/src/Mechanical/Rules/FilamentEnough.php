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
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Mechanical\RecipeWeight;
use Magpie\Core\Quantity\Quantity;

/** M14: filament for the parts that are still to be printed. */
final class FilamentEnough implements Check
{
    public function card(): Card
    {
        return new Card(
            'M14',
            'Filament',
            'Are there reels enough for the printed parts?',
            Trade::Mechanical,
            'Sum of the masses of the parts, a tenth more for purge and failures: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Feedstock) as $ref => $fitted) {
            yield new Subject('need', $ref, $fitted->need->role, [$ref]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $reel = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $material = $inquiry->tryChoice($reel, 'material') ?? $inquiry->lack("material of {$reel->need->role}");
        $mass = $inquiry->read($reel, 'mass', 'm_r', Bound::Lowest);
        $colour = $this->colour($inquiry, $reel, $material);
        $sum = Quantity::of(0, 'g');
        $count = 0;
        foreach ($this->alike($inquiry, Ability::Printed, $material, $colour) as $ref => $part) {
            $one = RecipeWeight::orTold($inquiry, $part->part, $part->need->role, "m_{$ref}");
            $sum = $one === null ? $sum : $sum->plus($one->times($part->need->quantity));
            $count += $part->need->quantity;
        }
        $what = $colour === null ? $material : "{$colour} {$material}";
        $wanted = $inquiry->work(
            "{$count} parts in {$what}, and a tenth more",
            'm = Σm_i × 1.1',
            ['Σm_i' => $sum],
            $sum->times(1.1),
            'g',
        );
        $have = Quantity::of(0, 'g');
        $symbols = [];
        foreach ($this->alike($inquiry, Ability::Feedstock, $material, $colour) as $ref => $other) {
            $one = $ref === $reel->need->ref ? $mass : $inquiry->tryRead($other, 'mass', "m_{$ref}", Bound::Lowest);
            if ($one === null) {
                $inquiry->miss("mass of {$other->need->role}", "parts/{$other->part->ref}/specs/mass");

                continue;
            }
            $symbols["m_{$ref}"] = $one->times($other->need->quantity);
            $have = $have->plus($symbols["m_{$ref}"]);
        }
        $have = $inquiry->work('On the reels', 'm_h = '.implode(' + ', array_keys($symbols)), $symbols, $have, 'g');
        [$density, $diameter] = [$inquiry->tryRead($reel, 'density', 'ρ'), $inquiry->tryRead($reel, 'diameter', 'd')];
        if ($density !== null && $diameter !== null) {
            $inquiry->work(
                'Length on one reel',
                'l = m_r / (ρ × π/4 × d²)',
                ['m_r' => $mass, 'ρ' => $density, 'd' => $diameter],
                Quantity::of($mass->in('kg') / ((($density->in('kg/m³') * M_PI) / 4) * $diameter->in('m') ** 2), 'm'),
                'm',
            );
        }
        $verdict = $wanted->exceeds($have)
            ? Verdict::Fails
            : ($wanted->exceeds($have->times(0.95))
                ? Verdict::Tight
                : Verdict::Holds);

        return $inquiry->conclude(
            $verdict,
            "{$wanted} of {$what} are wanted, {$have} are on its reels.".
                ($verdict === Verdict::Fails ? ' Another reel, of the same batch if the colour matters.' : ''),
            $inquiry->margin($wanted, $have),
            "{$have}",
        );
    }

    /**
     * The colour this reel is judged by: its own, where every part of its material has one; else the material is judged
     * as one, since nobody has said which reel a part is printed from.
     */
    private function colour(Inquiry $inquiry, Fitted $reel, string $material): ?string
    {
        foreach ($this->alike($inquiry, Ability::Printed, $material, null) as $part) {
            if ($inquiry->tryChoice($part, 'colour') === null) {
                return null;
            }
        }
        $own = $inquiry->tryChoice($reel, 'colour');

        return $own === null ? null : mb_strtolower(trim($own));
    }

    /**
     * @return iterable<string, Fitted> what is of one material, and where a colour is given, of that
     */
    private function alike(Inquiry $inquiry, Ability $what, string $material, ?string $colour): iterable
    {
        foreach ($inquiry->build->fittedThat($what) as $ref => $fitted) {
            if ($inquiry->tryChoice($fitted, 'material') !== $material) {
                continue;
            }
            $own = $colour === null ? null : $inquiry->tryChoice($fitted, 'colour');
            if ($colour === null || ($own !== null && mb_strtolower(trim($own)) === $colour)) {
                yield (string) $ref => $fitted;
            }
        }
    }

    public function examples(): Examples
    {
        $file = static fn (string $mass): array => Examples::file([
            Examples::part('asa', 'filament', [
                'material' => 'ASA',
                'mass' => '1 kg',
                'density' => '1.07 g/cm³',
                'diameter' => '1.75 mm',
            ]),
            Examples::part('corner', 'printed_part', ['material' => 'ASA', 'mass' => $mass]),
        ]);

        return new Examples(
            static fn (): array => $file('1.2 kg'),
            static fn (): array => $file('300 g'),
            Verdict::Fails,
        );
    }
}
