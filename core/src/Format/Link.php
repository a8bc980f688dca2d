<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

/** A place of an entry that names another entry. */
final readonly class Link
{
    /**
     * @param  string  $at  member of the entry, "ends/0/contact"
     * @param  string  $to  section of the entry it names
     * @param  list<string>  $families  what a need named here has to be; any when empty
     * @param  string|null  $what  what a person calls those
     */
    public function __construct(
        public string $at,
        public string $to,
        public string $ref,
        public array $families = [],
        public ?string $what = null,
    ) {
    }

    /**
     * One for each of a list; those that name nothing are left out.
     *
     * @param  iterable<int|string, string|null>  $refs
     * @param  list<string>  $families
     * @return iterable<self>
     */
    public static function each(string $at, string $to, iterable $refs, array $families = []): iterable
    {
        foreach ($refs as $i => $ref) {
            if ($ref !== null) {
                yield new self("{$at}/{$i}", $to, $ref, $families);
            }
        }
    }

    /**
     * One, or none where nothing is named.
     *
     * @param  list<string>  $families
     * @return iterable<self>
     */
    public static function to(
        string $at,
        string $to,
        ?string $ref,
        array $families = [],
        ?string $what = null,
    ): iterable {
        if ($ref !== null) {
            yield new self($at, $to, $ref, $families, $what);
        }
    }
}
