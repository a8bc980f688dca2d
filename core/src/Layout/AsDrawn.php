<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Inspection\Input;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Quantity\Quantity;

/**
 * A build with what follows for its leads from the places of what they join: lengths that nobody typed, the chains they go through,
 * whether they move. It keeps the last it worked: a candidate that leaves every place as it is is tried without working the ways
 * again.
 */
final class AsDrawn
{
    /** Leads are cut to the next of these, mm. */
    private const STEP = 10;

    /** @var list<mixed>|null what the last lengths followed from */
    private ?array $from = null;

    /** @var array<string, array{Quantity, Evidence, list<string>, bool}> lead → length, what it rests on, chains, whether it moves */
    private array $ways = [];

    /** @var array<string, array{Lead, Lead}> lead → as it was handed in, and as drawn */
    private array $drawn = [];

    /** @var array{array<string, Lead>, array<string, Lead>} the last leads, and as they were handed in */
    private array $said = [[], []];

    public function of(Build $build): Build
    {
        $said = $this->said($build->leads);
        $build = $said === $build->leads ? $build : $build->with(['leads' => $said]);
        if ($build->places === []) {
            return $build;
        }
        $from = self::follows($build);
        if ($this->from !== $from) {
            [$this->ways, $this->from, $this->drawn] = [self::ways($build), $from, []];
        }
        $leads = $build->leads;
        foreach ($this->ways as $ref => $way) {
            if (isset($leads[$ref])) {
                // The same lead comes out as the same object: an edit elsewhere leaves it alone.
                [$was, $drawn] = $this->drawn[$ref] ?? [null, null];
                if ($was !== $leads[$ref] || $drawn === null) {
                    $drawn = $leads[$ref]->drawn(...$way);
                    $this->drawn[$ref] = [$leads[$ref], $drawn];
                }
                $leads[$ref] = $drawn;
            }
        }

        return $build->with(['leads' => $leads]);
    }

    /**
     * Leads as they were handed in: those that stood before may have been drawn from other places.
     *
     * @param  array<string, Lead>  $leads
     * @return array<string, Lead>
     */
    private function said(array $leads): array
    {
        if ($this->said[0] !== $leads) {
            $said = [];
            foreach ($leads as $ref => $lead) {
                [$was, $drawn] = $this->drawn[$ref] ?? [null, null];
                $said[$ref] = $was !== null && $drawn === $lead ? $was : $lead->asSaid();
            }
            $this->said = [$leads, $said];
        }

        return $this->said[1];
    }

    /**
     * @return array<string, array{Quantity, Evidence, list<string>, bool}>
     */
    private static function ways(Build $build): array
    {
        $survey = new Survey($build);
        $layout = Layout::of($survey);
        $ways = [];
        foreach (Ways::of($survey)->all as $ref => $way) {
            $length = $way->length();
            if ($length === null) {
                continue;
            }
            $through = [];
            foreach ($way->chains as $key) {
                $through[] = $layout->bodies[$key]->place->need;
            }
            $ways[$ref] = [
                self::cut($length),
                $build->leads[$ref]->length === null ? self::rests($survey, $way) : Evidence::Measured,
                array_values(array_filter($through)),
                $way->chains !== [] || $way->loose !== [],
            ];
        }

        return $ways;
    }

    /** The weakest of what a way was worked from. */
    private static function rests(Survey $survey, Way $way): Evidence
    {
        $inquiry = Inquiry::forFigures($survey, new Subject('lead', $way->lead, $way->lead));
        Resting::on($inquiry, ...$way->places);
        Resting::onTravel($inquiry, $way->axes);

        return Evidence::weakest(
            Evidence::Manual,
            ...array_map(static fn (Input $i): Evidence => $i->evidence, $inquiry->inputs()),
        );
    }

    /** A length as it is cut. */
    public static function cut(float $mm): Quantity
    {
        return Quantity::of((ceil($mm / self::STEP - 1e-9) * self::STEP) / 1000, 'm');
    }

    /**
     * All that the ways follow from, told apart by identity.
     *
     * @return list<mixed>
     */
    private static function follows(Build $build): array
    {
        $from = [
            $build->places,
            $build->axes,
            $build->zones,
            $build->workpieces,
            $build->mates,
            $build->brief->outline,
        ];
        $needs = [];
        foreach ($build->places as $place) {
            $needs[] = $place->need;
        }
        foreach ($build->zones as $zone) {
            $needs[] = $zone->box;
        }
        foreach ($build->axes as $axis) {
            $needs[] = $axis->rail;
        }
        foreach ($build->leads as $ref => $lead) {
            $from[] = [$ref, $lead->from->text(), $lead->to->text(), $lead->length === null, $build->isMains($lead)];
            array_push($needs, $lead->from->need, $lead->to->need);
        }
        foreach (array_unique(array_filter($needs)) as $ref) {
            $need = $build->need($ref);
            $from[] = [$ref, $need?->quantity, $need?->seat, $build->fitted($ref)?->part];
        }

        return $from;
    }
}
