<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;
use Throwable;

/**
 * One check asking about one subject: notes every value it reads and every line it works out, and ends in a Finding.
 * What is missing makes the finding Unproven; so does a pass that rests on less than the check asks.
 */
final class Inquiry
{
    public readonly Build $build;

    /** @var array<string, array{string, Quantity}> */
    private array $figures = [];

    /** A margin as small as rounding makes. */
    private const NOTHING = 1e-9;

    /** @var list<WorkingStep> */
    private array $working = [];

    /** @var array<string, Input> by where */
    private array $inputs = [];

    /** @var list<string> */
    private array $missing = [];

    /** @var array<string, string> what is missing → where it would be written */
    private array $wanted = [];

    /** @var array<string, true> of what is missing, values of things that are there: all that is not known is their size */
    private array $sizes = [];

    /** @var array<string, true> where inputs stand that a solved value was leant by */
    private array $leant = [];

    private ?string $scenario = null;

    /** @var list<string> */
    private array $leads = [];

    /** @var array<string, Stage> of what is missing: how far a build must be before it can be told */
    private array $stages = [];

    private ?string $cause = null;

    /**
     * @param  Supposition|null  $supposed  values it is asked with in place of those that are not known well
     * @param  Throwable|null  $broken  what kept the check from saying what it is about
     */
    public function __construct(
        public readonly Survey $survey,
        public readonly Card $card,
        public readonly Subject $subject,
        public readonly ?Throwable $broken = null,
        private readonly ?Supposition $supposed = null,
    ) {
        $this->build = $survey->build;
    }

    /** One that judges nothing: it is only asked for figures. */
    public static function forFigures(Survey $survey, Subject $subject): self
    {
        return new self($survey, new Card('', '', '', Trade::Workshop, ''), $subject);
    }

    /**
     * A quantity from a part's sheet. Which end of its tolerance is taken is the check's to say.
     *
     * @throws InputMissing
     */
    public function read(Fitted $fitted, string $key, string $symbol, Bound $bound = Bound::Nominal): Quantity
    {
        return $this->readAll($fitted, [$symbol => $key], $bound)[0];
    }

    /**
     * Several quantities at once, so that all that is missing is named together.
     *
     * @param  array<string, string>  $keys  symbol → key
     * @return list<Quantity>
     *
     * @throws InputMissing
     */
    public function readAll(Fitted $fitted, array $keys, Bound $bound = Bound::Nominal): array
    {
        $found = [];
        foreach ($keys as $symbol => $key) {
            $quantity = $this->tryRead($fitted, $key, $symbol, $bound);
            if ($quantity === null) {
                $this->missSize(
                    lcfirst($fitted->part->family->field($key)->label ?? $key).' of '.$fitted->need->role,
                    "parts/{$fitted->part->ref}/specs/{$key}",
                );
            } else {
                $found[] = $quantity;
            }
        }
        if (count($found) < count($keys)) {
            throw new InputMissing;
        }

        return $found;
    }

    /** As read(), but null when it is not there. */
    public function tryRead(Fitted $fitted, string $key, string $symbol, Bound $bound = Bound::Nominal): ?Quantity
    {
        $spec = $fitted->part->spec($key);

        return $spec === null
            ? $this->supposed?->value("parts/{$fitted->part->ref}/specs/{$key}")
            : $this->take(
                $fitted->part,
                $spec,
                "parts/{$fitted->part->ref}/specs/{$key}",
                $symbol,
                $bound,
                $fitted->part->family->field($key)->label ?? $key,
            );
    }

    /** As tryRead(), of a part that fills no need, such as the housing on a lead's end. */
    public function tryPart(Part $part, string $key, string $symbol, Bound $bound = Bound::Nominal): ?Quantity
    {
        $where = "parts/{$part->ref}/specs/{$key}";
        $spec = $part->spec($key);

        return $spec === null
            ? $this->supposed?->value($where)
            : $this->take($part, $spec, $where, $symbol, $bound, $part->family->field($key)->label ?? $key);
    }

    /** A choice, or a free text such as the points of a curve; null when it is not there. */
    public function tryChoice(Fitted $fitted, string $key): ?string
    {
        return $this->tryPartChoice($fitted->part, $key);
    }

    /** As tryChoice(), of a part that fills no need. */
    public function tryPartChoice(Part $part, string $key): ?string
    {
        $spec = $part->spec($key);
        if ($spec?->choice() !== null) {
            $this->noteSpec(
                $part,
                $spec,
                "parts/{$part->ref}/specs/{$key}",
                '',
                $part->family->field($key)->label ?? $key,
            );
        }

        return $spec?->choice();
    }

    public function tryFlag(Fitted $fitted, string $key): ?bool
    {
        $spec = $fitted->part->spec($key);
        if ($spec?->flag() !== null) {
            $this->noteSpec(
                $fitted->part,
                $spec,
                "parts/{$fitted->part->ref}/specs/{$key}",
                '',
                $fitted->part->family->field($key)->label ?? $key,
            );
        }

        return $spec?->flag();
    }

    /**
     * All that is said of a value: the claim that counts, and the others. None where nothing is.
     *
     * @return list<Spec>
     */
    public function claims(Fitted $fitted, string $key): array
    {
        $counts = $fitted->part->spec($key);
        if ($counts === null) {
            return [];
        }
        $label = $fitted->part->family->field($key)->label ?? $key;
        $this->noteSpec($fitted->part, $counts, "parts/{$fitted->part->ref}/specs/{$key}", '', $label);

        return [$counts, ...$counts->rivals];
    }

    /** What a value on a sheet rests on, without reading it; null when it is not there. */
    public function evidenceOf(Fitted $fitted, string $key): ?Evidence
    {
        return $fitted->part->spec($key)?->evidence;
    }

    /** A choice or a flag said of a port itself; null when it is not there. */
    public function tryPortWord(Fitted $fitted, Port $port, string $key): ?Spec
    {
        $spec = $port->specs[$key] ?? null;
        if ($spec !== null) {
            $where = "parts/{$fitted->part->ref}/ports/{$port->name}/specs/{$key}";
            $this->noteSpec($fitted->part, $spec, $where, '', str_replace('_', ' ', $key)." of port {$port->name}");
        }

        return $spec;
    }

    /** A port's quantity: its own word, or what the part's sheet lends it. */
    public function tryPort(
        Fitted $fitted,
        Port $port,
        string $key,
        string $symbol,
        Bound $bound = Bound::Nominal,
    ): ?Quantity {
        $spec = $fitted->part->portSpec($port, $key);
        if ($spec === null) {
            return $this->supposed?->value(self::whereOf($fitted, $port, $key));
        }
        $where = isset($port->specs[$key])
            ? "parts/{$fitted->part->ref}/ports/{$port->name}/specs/{$key}"
            : "parts/{$fitted->part->ref}/specs/{$spec->key}";

        return $this->take(
            $fitted->part,
            $spec,
            $where,
            $symbol,
            $bound,
            $fitted->part->family->field($spec->key)->label ?? str_replace('_', ' ', $key).' of port '.$port->name,
        );
    }

    /** As tryPort(), naming what is missing. */
    public function port(
        Fitted $fitted,
        Port $port,
        string $key,
        string $symbol,
        Bound $bound = Bound::Nominal,
    ): Quantity {
        $found = $this->tryPort($fitted, $port, $key, $symbol, $bound);
        if ($found === null) {
            $this->missSize(
                str_replace('_', ' ', $key)." of {$fitted->need->role}, port {$port->name}",
                self::whereOf($fitted, $port, $key),
            );
            throw new InputMissing;
        }

        return $found;
    }

    /** Where a port's value would be written that nobody has: on its part's sheet, where that lends it. */
    public static function whereOf(Fitted $fitted, Port $port, string $key): string
    {
        $own = $port->lends[$key] ?? null;

        return $own === null
            ? "parts/{$fitted->part->ref}/ports/{$port->name}/specs/{$key}"
            : "parts/{$fitted->part->ref}/specs/{$own}";
    }

    /**
     * A value that is on no sheet: a lead's length, the site's air.
     *
     * @throws InputMissing
     */
    public function given(string $label, string $symbol, ?Quantity $value, ?Evidence $evidence, string $where): Quantity
    {
        $value = $this->supposed?->value($where) ?? $value;
        if ($value === null) {
            $this->miss($label, $where);
            throw new InputMissing;
        }
        $this->absorb([new Input(ucfirst($label), $symbol, $value, $evidence ?? Evidence::Assumed, null, $where)]);

        return $value;
    }

    /**
     * Voltage of the mains where the machine stands, as the standards of the place have it.
     *
     * @throws InputMissing when the site does not say
     */
    public function mains(): Quantity
    {
        return $this->given(
            'mains voltage of the site',
            'V',
            $this->build->site->mainsVoltage,
            Evidence::Standard,
            'site/mains_voltage',
        );
    }

    /**
     * What was read so far, for whoever worked something on a check's behalf.
     *
     * @return list<Input>
     */
    public function inputs(): array
    {
        return array_values($this->inputs);
    }

    /**
     * @param  iterable<Input>  $inputs  values read elsewhere on this check's behalf
     */
    public function absorb(iterable $inputs): void
    {
        foreach ($inputs as $input) {
            $this->inputs[$input->where] ??= $input;
        }
    }

    /**
     * @throws InputMissing
     */
    public function lack(string ...$what): never
    {
        foreach ($what as $one) {
            $this->miss($one);
        }
        throw new InputMissing;
    }

    /**
     * @param  string|null  $where  where it would be written, as in Input::$where
     * @return null so that a value can be read or missed in one breath
     */
    public function miss(string $what, ?string $where = null): null
    {
        if (! in_array($what, $this->missing, true)) {
            $this->missing[] = $what;
        }
        if ($where !== null) {
            $this->wanted[$what] = $where;
        }

        return null;
    }

    /** As miss(), of the size of something that is there: it is one of those its family has seen. */
    public function missSize(string $what, string $where): void
    {
        $this->miss($what, $where);
        $this->sizes[$what] = true;
    }

    /** As miss(), of what can only be told once the build is so far. */
    public function missUntil(Stage $stage, string $what, ?string $where = null): null
    {
        $this->miss($what, $where);
        $this->stages[$what] = $stage;

        return null;
    }

    /** What this finding shares with others that have the same cause. */
    public function because(string $cause): void
    {
        $this->cause = $cause;
    }

    /** How far the build must be before all that is missing can be told; null when some of it can be told now. */
    private function later(): ?Stage
    {
        if ($this->missing === [] || array_diff_key(array_flip($this->missing), $this->stages) !== []) {
            return null;
        }
        $now = Stage::earlier(
            Stage::Powered,
            ...array_map($this->build->stageOf(...), $this->subject->needs === [] ? [''] : $this->subject->needs),
        );
        $earliest = null;
        foreach ($this->missing as $what) {
            $stage = $this->stages[$what];
            if (! $now->isBefore($stage)) {
                return null;
            }
            $earliest = $earliest === null || $stage->isBefore($earliest) ? $stage : $earliest;
        }

        return $earliest;
    }

    public function isIncomplete(): bool
    {
        return $this->missing !== [];
    }

    public function in(?string $scenario): void
    {
        $this->scenario = $scenario;
    }

    /**
     * What so many pieces come to together; of one it is the same, and no line of working.
     *
     * @param  string  $formula  "I = n × I_c"
     * @param  string  $symbol  of one piece
     */
    public function together(
        string $label,
        string $formula,
        string $symbol,
        Quantity $one,
        int $pieces,
        string $unit,
    ): Quantity {
        return $pieces < 2
            ? $one
            : $this->work(
                $label,
                $formula,
                ['n' => Quantity::ratio($pieces), $symbol => $one],
                $one->times($pieces),
                $unit,
            );
    }

    /**
     * Notes a line of working and hands its result on, in the unit asked for.
     *
     * @param  array<string, Quantity>  $symbols
     */
    public function work(
        string $label,
        string $formula,
        array $symbols,
        Quantity $result,
        ?string $unit = null,
    ): Quantity {
        $result = $unit === null ? $result : $result->to($unit);
        $this->working[] = new WorkingStep($label, $formula, $symbols, $result);

        return $result;
    }

    public function remark(string $text): void
    {
        $this->working[] = new WorkingStep($text);
    }

    /** A threshold of this check: the builder's own where there is one, which then shows in the working. */
    public function threshold(string $key): Quantity
    {
        $own = $this->build->limits[$this->card->id.'-'.$key] ?? null;
        if ($own !== null) {
            $this->remark("Limit \"{$key}\" set to {$own->value} by the builder: {$own->reason}");

            return $own->value;
        }

        return $this->card->thresholds[$key]->default;
    }

    /** Share of a limit still free. */
    public function margin(Quantity $value, Quantity $limit): Quantity
    {
        return $limit->isZero()
            ? Quantity::ratio($value->isPositive() ? -1 : 0)
            : Quantity::ratio(1)->minus($value->over($limit))->to('%');
    }

    /** Holds up to one share of a limit, tight up to another, and then the given verdict. */
    public function band(Quantity $value, Quantity $limit, Quantity $holds, Quantity $tight, Verdict $above): Verdict
    {
        return match (true) {
            $value->exceeds($limit->times($tight)) => $above,
            $value->exceeds($limit->times($holds)) => Verdict::Tight,
            default => Verdict::Holds,
        };
    }

    /**
     * Leads it speaks of, where its subject is none.
     *
     * @param  list<string>  $leads
     */
    public function naming(array $leads): void
    {
        $this->leads = $leads;
    }

    /** A figure a builder asks for beside the verdict, shown with it and read by views by its key. */
    public function figure(string $key, string $label, Quantity $value): Quantity
    {
        $this->figures[$key] = [$label, $value];

        return $value;
    }

    public function conclude(
        Verdict $verdict,
        string $headline,
        ?Quantity $margin = null,
        ?string $limit = null,
    ): Finding {
        if ($verdict === Verdict::Holds && $margin !== null && abs($margin->in('')) < self::NOTHING) {
            // Exactly at its limit there is nothing to spare.
            $verdict = Verdict::Tight;
        }
        $otherwise = null;
        $said = $headline;
        if ($verdict->passes()) {
            $weak = array_filter($this->inputs, $this->isWeak(...));
            if ($this->missing !== []) {
                [$verdict, $otherwise] = [Verdict::Unproven, $verdict];
                $headline .= ' Not known yet: '.implode('; ', $this->missing).'.';
            } elseif ($weak !== []) {
                [$verdict, $otherwise] = [Verdict::Unproven, $verdict];
                $names = array_map(
                    static fn (Input $i): string => lcfirst($i->label).' ('.$i->evidence->label().')',
                    array_slice($weak, 0, 3),
                );
                $headline .=
                    ' Rests on '.
                    implode(', ', $names).
                    (count($weak) > 3 ? ' and '.(count($weak) - 3).' more' : '').
                    '.';
            }
        }

        return new Finding(
            $this->card,
            $this->subject,
            $verdict,
            $headline,
            $margin,
            $limit,
            $this->working,
            array_values($this->inputs),
            $this->missing,
            $this->scenario,
            $otherwise,
            $this->wanted,
            sizes: $this->sizes,
            figures: $this->figures,
            leads: $this->leads,
            said: $said,
            later: $verdict === Verdict::Unproven ? $this->later() : null,
            cause: $this->cause,
        );
    }

    /** Whether an input rests on less than the check asks, and nothing was supposed in its place. */
    private function isWeak(Input $input): bool
    {
        return ! $this->card->informs &&
            $input->evidence->isWeakerThan($this->card->asks) &&
            $this->supposed?->has($input->where) !== true &&
            ! isset($this->leant[$input->where]);
    }

    /**
     * What was solved from values that may be off, leant to the side that is supposed.
     *
     * @param  callable(): list<array{Quantity, list<Input>}>  $shares  of what it is made up, each with what that rests on
     */
    public function leaning(Quantity $value, callable $shares): Quantity
    {
        if ($this->supposed === null) {
            return $value;
        }
        [$said, $off] = [0.0, 0.0];
        foreach ($shares() as [$share, $inputs]) {
            $times = 1.0;
            foreach ($inputs as $input) {
                if ($input->evidence->isWeakerThan($this->card->asks)) {
                    $by = Plausible::times($this->build, $input);
                    if ($by !== null) {
                        $this->leant[$input->where] = true;
                        $times *= $by;
                    }
                }
            }
            $size = abs($share->in($value->unit->symbol));
            $said += $size;
            $off += $size * $times ** $this->supposed->lean;
        }

        return $said > 0 ? $value->times($off / $said) : $value;
    }

    /** The finding of a judgement that was left early. */
    public function unproven(): Finding
    {
        $wanted = array_slice($this->missing, 0, 4);
        $more = count($this->missing) - count($wanted);

        return new Finding(
            $this->card,
            $this->subject,
            Verdict::Unproven,
            'Not known yet: '.implode('; ', $wanted).($more > 0 ? " and {$more} more" : '').'.',
            null,
            null,
            $this->working,
            array_values($this->inputs),
            $this->missing,
            $this->scenario,
            wanted: $this->wanted,
            sizes: $this->sizes,
            later: $this->later(),
            cause: $this->cause,
            figures: $this->figures,
            leads: $this->leads,
        );
    }

    /** The finding of a judgement that broke down over a value nobody foresaw. It proves nothing, either way. */
    public function troubled(Throwable $cause): Finding
    {
        $place = basename($cause->getFile(), '.php').':'.$cause->getLine();
        $read = array_map(
            static fn (Input $i): string => lcfirst($i->label)." {$i->value()}",
            array_slice(array_values($this->inputs), -3),
        );

        return new Finding(
            $this->card,
            $this->subject,
            Verdict::Unproven,
            'This check could not be judged: '.
                lcfirst($cause->getMessage()).
                ($read === [] ? '' : ' It had read '.implode(', ', $read).'.').
                ' Look at these values; if they are right, the fault is in this program.',
            null,
            null,
            $this->working,
            array_values($this->inputs),
            ['a judgement that came to no end'],
            $this->scenario,
            trouble: $cause::class." at {$place}: {$cause->getMessage()}",
        );
    }

    private function take(Part $part, Spec $spec, string $where, string $symbol, Bound $bound, string $label): ?Quantity
    {
        $quantity = $bound->of($spec);
        if ($quantity !== null) {
            $this->noteSpec($part, $spec, $where, $symbol, $label);
        }

        return $quantity === null ? null : $this->supposed?->value($where) ?? $quantity;
    }

    private function noteSpec(Part $part, Spec $spec, string $where, string $symbol, string $label): void
    {
        $this->inputs[$where] ??= Input::ofSpec($part, $spec, $label, $where, $symbol);
    }
}
