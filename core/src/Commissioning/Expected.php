<?php

declare(strict_types=1);

namespace Magpie\Core\Commissioning;

use Magpie\Core\Inspection\Input;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\Running\Reading;
use Magpie\Core\Quantity\Quantity;

/** What an instrument should show at one place of the machine, between what and what, and why. */
final readonly class Expected
{
    /**
     * @param  string|null  $where  need or axis it is taken on
     * @param  Quantity|null  $low  the least that is right; null where any less is
     * @param  Quantity|null  $high  the most that is right; null where any more is
     * @param  string  $why  how the band comes about, with its figures
     * @param  list<string>  $missing  what must be known before there is a band, or before one may lean on it
     * @param  list<Input>  $rests  values on sheets that the band rests on
     * @param  bool  $asked  the rung waits for it
     */
    public function __construct(
        public Measured $what,
        public string $label,
        public ?string $where,
        public ?Quantity $nominal,
        public ?Quantity $low,
        public ?Quantity $high,
        public string $why,
        public string $how,
        public ?string $port = null,
        public ?string $scenario = null,
        public array $missing = [],
        public array $rests = [],
        public bool $asked = true,
        public bool $onAxis = false,
    ) {
    }

    public function key(): string
    {
        return Reading::key($this->what, $this->where, $this->port, $this->scenario);
    }

    /** The same, of which something is not known. */
    public function without(string $what): self
    {
        return $this->with($this->label, $this->how, [...$this->missing, $what]);
    }

    /** The same of one of several pieces: the worst of them is noted. */
    public function ofEach(int $pieces): self
    {
        return $pieces < 2
            ? $this
            : $this->with(
                "{$this->label}, each of {$pieces}",
                "Every one of them; the worst is noted. {$this->how}",
                $this->missing,
            );
    }

    /**
     * @param  list<string>  $missing
     */
    private function with(string $label, string $how, array $missing): self
    {
        return new self(
            $this->what,
            $label,
            $this->where,
            $this->nominal,
            $this->low,
            $this->high,
            $this->why,
            $how,
            $this->port,
            $this->scenario,
            $missing,
            $this->rests,
            $this->asked,
            $this->onAxis,
        );
    }

    public function isKnown(): bool
    {
        return $this->low !== null || $this->high !== null;
    }

    /**
     * Inside the band by more than the instrument may be off, it holds; nearer to its edge it is tight; outside it fails. Where
     * no band is known, or it rests on what nobody has said, nothing is proven.
     */
    public function verdict(Reading $reading): Verdict
    {
        if (! $this->isKnown()) {
            return Verdict::Unproven;
        }
        $symbol = $reading->value->unit->symbol;
        $value = $reading->value->in($symbol);
        $doubt = $reading->doubt();
        $off = abs($doubt->in($doubt->unit->symbol === 'K' ? 'K' : $symbol));
        $low = $this->low?->in($symbol);
        $high = $this->high?->in($symbol);

        return match (true) {
            $this->missing !== [] && ! $this->isOut($value, $low, $high) => Verdict::Unproven,
            $this->isOut($value, $low, $high) => Verdict::Fails,
            ($low !== null && $low > 0 && $value - $off < $low) || ($high !== null && $value + $off > $high) => Verdict::Tight,
            default => Verdict::Holds,
        };
    }

    private function isOut(float $value, ?float $low, ?float $high): bool
    {
        return ($low !== null && $value < $low) || ($high !== null && $value > $high);
    }

    /** The band as a person says it: "7.0 to 8.4 Ω". */
    public function band(): string
    {
        return match (true) {
            $this->low !== null && $this->high !== null && ! $this->low->isZero() => "{$this->low->rounded(
                3,
            )} to {$this->high->rounded(3)}",
            $this->high !== null => "at most {$this->high->rounded(3)}",
            $this->low !== null => "at least {$this->low->rounded(3)}",
            default => 'not known',
        };
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return [
            'key' => $this->key(),
            'what' => $this->what->value,
            'label' => $this->label,
            'need' => $this->onAxis ? null : $this->where,
            'axis' => $this->onAxis ? $this->where : null,
            'port' => $this->port,
            'scenario' => $this->scenario,
            'nominal' => $this->nominal?->rounded(4)->text(),
            'unit' => ($this->nominal ?? ($this->high ?? $this->low))?->unit->symbol,
            'low' => $this->low?->rounded(4)->text(),
            'high' => $this->high?->rounded(4)->text(),
            'band' => $this->band(),
            'why' => $this->why,
            'how' => $this->how,
            'missing' => $this->missing,
            'asked' => $this->asked,
        ];
    }
}
