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
use Magpie\Core\Machine\Reads;
use Magpie\Core\Quantity\Quantity;
use WeakMap;

/**
 * A build with what follows for its leads from the places of what they join: lengths that nobody typed, the chains they go through,
 * whether they move. It keeps the last it worked: an edit or a candidate that leaves every place as it is, or as it was a moment ago,
 * works no way again.
 */
final class AsDrawn
{
    /** Leads are cut to the next of these, mm. */
    private const STEP = 10;

    /** How many arrangements are remembered: as the build stands, and as it would with what is being tried. */
    private const KEPT = 2;

    /** @var list<Drawn> the last arrangements, the last one worked first */
    private array $drawn = [];

    /** @var WeakMap<Lead, Lead> a lead as drawn → as it was handed in */
    private WeakMap $said;

    public function __construct()
    {
        $this->said = new WeakMap;
    }

    public function of(Build $build): Build
    {
        $build = $build->with(['leads' => array_map($this->said(...), $build->leads)]);
        if ($build->places === []) {
            return $build;
        }
        $drawn = $this->drawn($build);
        $leads = $build->leads;
        foreach ($leads as $ref => $lead) {
            $leads[$ref] = $drawn->lead($lead);
            if ($leads[$ref] !== $lead) {
                $this->said[$leads[$ref]] = $lead;
            }
        }

        return $build->with(['leads' => $leads]);
    }

    /** A lead as it was handed in: one that stood before may have been drawn from other places. */
    private function said(Lead $lead): Lead
    {
        return $this->said[$lead] ?? $lead->asSaid();
    }

    /** One that was worked before, if nothing it was worked from is otherwise now. */
    private function drawn(Build $build): Drawn
    {
        $ends = self::ends($build);
        foreach ($this->drawn as $drawn) {
            if ($drawn->stands($build, $ends)) {
                return $drawn;
            }
        }
        $reads = new Reads;
        $survey = new Survey($build->toldTo($reads), $reads);
        [$ways, $read] = $reads->during(static fn (): array => self::ways($survey));
        $drawn = new Drawn($build, $ends, $survey->ground($read), $ways);
        $this->drawn = [$drawn, ...array_slice($this->drawn, 0, self::KEPT - 1)];

        return $drawn;
    }

    /**
     * @return array<string, array{Quantity, Evidence, list<string>, bool}>
     */
    private static function ways(Survey $survey): array
    {
        $build = $survey->build;
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
        Resting::onWay($inquiry, $survey, $way);

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
     * @return list<mixed> what the ways follow from of the leads
     */
    private static function ends(Build $build): array
    {
        $ends = [];
        foreach ($build->leads as $ref => $lead) {
            $ends[] = [$ref, $lead->from->text(), $lead->to->text(), $lead->length === null, $build->isMains($lead)];
        }

        return $ends;
    }
}
