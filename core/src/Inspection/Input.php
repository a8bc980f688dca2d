<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Doubts;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Quantity\Quantity;

/**
 * A value a check read, what it rests on, and where it can be changed.
 */
final readonly class Input
{
    /**
     * @param  string  $where  "parts/M-57/specs/rated_current", "leads/W7/length", "site/ambient"
     */
    public function __construct(
        public string $label,
        public string $symbol,
        private Spec|Quantity $given,
        public Evidence $evidence,
        public ?string $source,
        public string $where,
    ) {
    }

    public function value(): string
    {
        return $this->given instanceof Spec ? $this->given->printed() : (string) $this->given;
    }

    /**
     * A spec as an input. One of an unlikely size that nobody has confirmed rests on nothing, whatever it claims.
     */
    public static function ofSpec(Part $part, Spec $spec, string $label, string $where, string $symbol = ''): self
    {
        $doubted = ! $spec->confirmed && Doubts::aboutSpec($part, $spec) !== null;

        return new self(
            "{$label} of {$part->name}",
            $symbol,
            $spec,
            $doubted ? Evidence::Assumed : $spec->evidence,
            $doubted ? 'an unlikely size, not confirmed yet' : $spec->source,
            $where,
        );
    }

    /**
     * What is said of a part's specs, of those that are.
     *
     * @return list<self>
     */
    public static function ofSpecs(Part $part, string ...$keys): array
    {
        $inputs = [];
        foreach ($keys as $key) {
            $spec = $part->spec($key);
            if ($spec !== null) {
                $label = $part->family->field($key)->label ?? $key;
                $inputs[] = self::ofSpec($part, $spec, $label, "parts/{$part->ref}/specs/{$key}");
            }
        }

        return $inputs;
    }

    /** Its size; null of a word or a flag. */
    public function quantity(): ?Quantity
    {
        return $this->given instanceof Spec ? $this->given->nominal() : $this->given;
    }

    /**
     * @return array<string, string|null>
     */
    public function toArray(): array
    {
        return [
            'label' => $this->label,
            'symbol' => $this->symbol,
            'value' => $this->value(),
            'evidence' => $this->evidence->value,
            'source' => $this->source,
            'where' => $this->where,
        ];
    }
}
