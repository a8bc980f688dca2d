<?php

declare(strict_types=1);

namespace Magpie\Core\PartsList;

use Magpie\Core\Machine\Evidence;

/**
 * What each column of a list means, as the builder settled it.
 */
final readonly class Mapping
{
    /**
     * @param  array<int, string>  $targets  column → target; a column not named is left out
     * @param  array<int, string>  $units  column → unit of bare numbers in it
     * @param  string|null  $family  family of lines that give none
     * @param  Evidence  $evidence  what the specs of the list rest on
     */
    public function __construct(
        public array $targets,
        public array $units = [],
        public ?string $family = null,
        public Evidence $evidence = Evidence::Listing,
        public string $currency = 'GBP',
        public string $supplier = 'Imported list',
    ) {
    }

    /**
     * @param  list<string>  $headings
     */
    public static function guess(array $headings, string $currency): self
    {
        $targets = [];
        $units = [];
        foreach ($headings as $column => $heading) {
            [$target, $unit] = Targets::guess($heading);
            if ($target !== null && ! in_array($target, $targets, true)) {
                $targets[$column] = $target;
                if ($unit !== null) {
                    $units[$column] = $unit;
                }
            }
        }

        return new self($targets, $units, currency: $currency);
    }

    /**
     * @param  array<string, mixed>  $data  as toArray() gives it
     */
    public static function fromArray(array $data, string $currency): self
    {
        $targets = array_filter(
            (array) ($data['targets'] ?? []),
            static fn (mixed $t): bool => is_string($t) && isset(Targets::all()[$t]),
        );
        $units = array_filter((array) ($data['units'] ?? []), is_string(...));
        $supplier =
            is_string($data['supplier'] ?? null) && $data['supplier'] !== '' ? $data['supplier'] : 'Imported list';
        $given =
            is_string($data['currency'] ?? null) && preg_match('/^[A-Z]{3}$/', $data['currency']) === 1
                ? $data['currency']
                : $currency;
        $evidence = is_string($data['evidence'] ?? null) ? Evidence::tryFrom($data['evidence']) : null;

        return new self(
            $targets,
            $units,
            is_string($data['family'] ?? null) ? $data['family'] : null,
            $evidence ?? Evidence::Listing,
            $given,
            $supplier,
        );
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return [
            'targets' => (object) $this->targets,
            'units' => (object) $this->units,
            'family' => $this->family,
            'evidence' => $this->evidence->value,
            'currency' => $this->currency,
            'supplier' => $this->supplier,
        ];
    }
}
