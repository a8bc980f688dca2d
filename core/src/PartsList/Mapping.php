<?php

declare(strict_types=1);

namespace Magpie\Core\PartsList;

use Magpie\Core\Machine\Evidence;

/**
 * What each column of a list means, as the builder settled it.
 */
final readonly class Mapping
{
    /** Headings stand above the list: as far down as this they are looked for. */
    public const LAST_HEADER = 20;

    /**
     * @param  array<int, string>  $targets  column → target; a column not named is left out
     * @param  array<int, string>  $units  column → unit of bare numbers in it
     * @param  string|null  $family  family of lines that give none
     * @param  Evidence  $evidence  what the specs of the list rest on
     * @param  int  $header  line the headings stand on
     * @param  array<int, string>  $families  line → family, where the builder said it
     */
    public function __construct(
        public array $targets,
        public array $units = [],
        public ?string $family = null,
        public Evidence $evidence = Evidence::Listing,
        public string $currency = 'GBP',
        public string $supplier = 'Imported list',
        public int $header = 1,
        public array $families = [],
    ) {
    }

    /**
     * @param  list<string>  $headings
     */
    public static function guess(array $headings, string $currency, int $header = 1): self
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

        return new self($targets, $units, currency: $currency, header: $header);
    }

    /**
     * The line that reads most like headings: titles, dates and empty lines often stand above them.
     *
     * @param  iterable<int, list<string>>  $lines  the first of the file, by number
     */
    public static function headerAmong(iterable $lines): int
    {
        [$header, $most] = [1, 1];
        foreach ($lines as $number => $cells) {
            $known = count(array_filter($cells, static fn (string $cell): bool => Targets::guess($cell)[0] !== null));
            if ($known > $most) {
                [$header, $most] = [$number, $known];
            }
        }

        return $header;
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
            max(1, min(self::LAST_HEADER, is_int($data['header'] ?? null) ? $data['header'] : 1)),
            array_filter(
                (array) ($data['families'] ?? []),
                static fn (mixed $f, int|string $line): bool => is_string($f) && is_int($line),
                ARRAY_FILTER_USE_BOTH,
            ),
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
            'header' => $this->header,
            'families' => (object) $this->families,
        ];
    }
}
