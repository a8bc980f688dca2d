<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

use Magpie\Core\Machine\Build;
use Magpie\Core\Money\OrderLine;
use Magpie\Core\Money\ToOrder;
use Magpie\Core\Site\Protection;

/** What to order and where, as data and as text: docs/format/order.md describes the shape. */
final readonly class OrderReport
{
    public const VERSION = 1;

    private Split $split;

    /** Whether all that is wanted costs more than may be spent. */
    private bool $beyond;

    public function __construct(private Build $build, private SplitLimits $limits = new SplitLimits)
    {
        $within = $limits->ceiling === null ? null : (new Frontier($build, $limits))->soonestWithin($limits->ceiling);
        $this->beyond = $limits->ceiling !== null && $within === null;
        $this->split = $within ?? new Split($build, $limits);
    }

    /** Whether all that is wanted is bought somewhere. */
    public function whole(): bool
    {
        return ! $this->beyond &&
            $this->split->solved() &&
            $this->split->open === [] &&
            ToOrder::undecided($this->build) === [];
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return [
            'magpie_order' => self::VERSION,
            'build' => $this->build->plan->name,
            'wanted' => array_map(static fn (OrderLine $l): array => $l->toArray(), ToOrder::of($this->build)),
            'undecided' => ToOrder::undecided($this->build),
            'safety' => Protection::toBuy($this->build),
            'for_leads' => LeadGoods::missing($this->build),
            'split' => $this->split->toArray(),
            'conflict' => $this->conflict(),
        ];
    }

    public function text(): string
    {
        $text = "{$this->build->plan->name}: ".count($this->split->lines).' lines to order';
        if ($this->split->solved()) {
            $text .=
                ", {$this->split->landed()} at the door".
                ($this->split->days() === null ? '' : ", the last after {$this->split->days()} days").
                ($this->split->proven() ? '; no split costs less.' : "; none costs less than {$this->split->bound()}.");
        }
        $text .= "\n";
        foreach ($this->split->baskets as $ref => $basket) {
            $text .=
                "\n{$basket->supplier->name}: {$basket->goods} goods, ".
                ($basket->shipping === null ? 'shipping not said' : "{$basket->shipping} shipping").
                ", {$basket->total} in all\n";
            foreach ($this->split->bought as $part => $way) {
                foreach ($way[$ref] ?? [] as $lot) {
                    $packs = $lot->offer->pack > 1 ? "{$lot->packs} × {$lot->offer->pack}" : (string) $lot->packs;
                    $article = $lot->offer->article === null ? '' : "  {$lot->offer->article}";
                    $text .= sprintf(
                        "  %8s  %s  %s%s\n",
                        $packs,
                        $lot->cost(),
                        $this->build->parts[$part]->name,
                        $article,
                    );
                }
            }
        }
        $text .= $this->lost();
        foreach (ToOrder::of($this->build) as $line) {
            foreach ($line->doubts as $doubt) {
                $text .= "  look again: {$line->name}: {$doubt}\n";
            }
        }

        return $text."\nA planning aid: prices are of the day they were noted.\n";
    }

    /**
     * @return list<string>
     */
    private function conflict(): array
    {
        $beyond =
            $this->beyond && $this->split->solved()
                ? ["no more than {$this->limits->ceiling} in all: the least is {$this->split->landed()}"]
                : [];

        return [...$beyond, ...$this->split->conflict()];
    }

    /** What is bought nowhere, and which limits are in the way. */
    private function lost(): string
    {
        $text = $this->split->solved() ? '' : "\nIt cannot be bought within these limits.\n";
        $conflict = $this->conflict();
        if ($conflict !== []) {
            $text .= "\nIn the way: ".implode(', with ', $conflict).".\n";
        }
        foreach ($this->split->open as $open) {
            $text .= "\n  not to be had: {$open['pieces']} × {$open['name']}: {$open['why']}\n";
        }
        foreach (LeadGoods::missing($this->build) as $good) {
            $text .= "  for the leads, on no list: {$good['pieces']} × {$good['what']}\n";
        }
        foreach (Protection::toBuy($this->build) as $line) {
            $text .= "  for safety, not said to be at hand: {$line}\n";
        }
        foreach (ToOrder::undecided($this->build) as $role) {
            $text .= "  not chosen yet: {$role}\n";
        }

        return $text;
    }
}
