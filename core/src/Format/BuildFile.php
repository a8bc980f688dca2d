<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

use JsonException;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Supplier;

/**
 * The open build format, version 1: JSON text ⇄ Build. See docs/format/.
 */
final class BuildFile
{
    public const VERSION = 2;

    /** Versions that are read: each says all that the ones before it said, in the same words. */
    private const READ = [1, 2];

    /** Entries of one collection. */
    public const MOST = 100_000;

    /**
     * Sections in the order they are read: what others refer to comes first.
     *
     * @return array<string, Section<object>>
     */
    public static function sections(): array
    {
        /** @var array<string, Section<object>>|null $sections */
        static $sections = null;
        if ($sections === null) {
            $sections = [];
            /** @var list<Section<object>> $all */
            $all = [
                new Sections\Parts, new Sections\Needs, new Sections\Leads, new Sections\Mates, new Sections\Scenarios,
                new Sections\Suppliers, new Sections\Offers, new Sections\Rates, new Sections\Purchases,
                new Sections\Steps, new Sections\Faults, new Sections\Limits,
                new Sections\Workpieces, new Sections\Axes, new Sections\Routes, new Sections\Decisions, new Sections\Revisions,
                new Sections\Zones, new Sections\Clearances, new Sections\Settings, new Sections\Accepted,
                new Sections\Printers, new Sections\Prints,
                new Sections\Documents, new Sections\Bags, new Sections\Questions,
                new Sections\Readings, new Sections\Rungs, new Sections\Attempts, new Sections\Alignments,
                new Sections\Jobs, new Sections\Rounds, new Sections\TestPieces, new Sections\Places,
            ];
            foreach ($all as $section) {
                $sections[$section->key()] = $section;
            }
        }

        return $sections;
    }

    /**
     * @throws CannotReadBuildFile with the JSON pointer and the reason
     */
    public static function read(string $json): Build
    {
        try {
            $data = json_decode($json, true, 64, JSON_THROW_ON_ERROR);
        } catch (JsonException $e) {
            throw CannotReadBuildFile::at('', 'is not JSON ('.lcfirst($e->getMessage()).').');
        }

        return self::build($data);
    }

    /**
     * @param  mixed  $data  decoded JSON, objects as arrays
     * @param  bool  $kept  it was accepted before, so its sizes are not held against what is possible again
     *
     * @throws CannotReadBuildFile
     */
    public static function build(mixed $data, bool $kept = false): Build
    {
        return self::reading($data, $kept)->build;
    }

    /**
     * The same, remembering what was read from what.
     *
     * @param  Reading|null  $earlier  a reading of nearly the same data: its entries are taken over where theirs is the
     *     same, and are the same objects
     *
     * @throws CannotReadBuildFile
     */
    public static function reading(mixed $data, bool $kept = false, ?Reading $earlier = null): Reading
    {
        $node = new Node($data, kept: $kept);
        if (! is_array($data) || ! array_key_exists('magpie', $data)) {
            $node->fail('has no "magpie" member with the version of the format; it is not a build file.');
        }
        if (! in_array($node->whole('magpie', 0), self::READ, true)) {
            $node->fail('only versions '.implode(' and ', self::READ).' of the format can be read here.', 'magpie');
        }
        $plan = Header::readPlan($node->member('build'));
        $site = $node->has('site') ? Header::readSite($node->member('site'), $plan->currency) : Header::readSite(new Node([]), $plan->currency);
        $node->member('site');
        $brief = Header::readBrief($node->part('brief'), $plan->currency);
        $collections = $pairs = [];
        foreach (self::sections() as $key => $section) {
            /** @var array<string, Supplier> $suppliers */
            $suppliers = $collections['suppliers'] ?? [];
            $context = new Context(Catalogue::standard(), $plan->currency, $suppliers);
            // What is priced follows from its supplier's currency, and that from the build's.
            $known = $earlier?->build->plan->currency === $plan->currency &&
                ($suppliers === [] || self::holds($suppliers, $earlier->build->suppliers))
                    ? $earlier->pairs[$key] ?? []
                    : [];
            if ($known !== [] && ($data[$key] ?? null) === ($earlier->data[$key] ?? null)) {
                $node->leave($key);
                [$pairs[$key], $collections[$key]] = [$known, $earlier->build->{$key}];

                continue;
            }
            $entries = [];
            foreach ($node->items($key, self::MOST) as $i => $item) {
                $raw = $item->raw();
                $name = is_array($raw) && is_string($raw['ref'] ?? null) ? $raw['ref'] : "#{$i}";
                [$was, $entry] = $known[$name] ?? [null, null];
                $entry = $entry !== null && $was === $raw ? $entry : $section->read($item, $context);
                $pairs[$key][$name] = [$raw, $entry];
                $ref = self::refOf($section, $entry);
                if (isset($entries[$ref])) {
                    $item->fail("\"{$ref}\" is already used by another entry of {$key}.", 'ref');
                }
                $entries[$ref] = $entry;
            }
            $collections[$key] = $entries;
        }
        $node->close();
        $build = new Build($plan, $site, ...$collections, brief: $brief);
        References::check($build, $earlier?->build);

        return new Reading($build, $pairs, $data);
    }

    /**
     * Whether some entries hold all of others, the very same.
     *
     * @param  array<string, object>  $entries
     * @param  array<string, object>  $all
     */
    private static function holds(array $entries, array $all): bool
    {
        foreach ($all as $ref => $one) {
            if (($entries[$ref] ?? null) !== $one) {
                return false;
            }
        }

        return true;
    }

    /**
     * @return array<string, mixed> in canonical form
     */
    public static function data(Build $build): array
    {
        $data = ['magpie' => self::VERSION, 'build' => Header::writePlan($build->plan), 'site' => Header::writeSite($build->site), 'brief' => Header::writeBrief($build->brief)];
        foreach (self::sections() as $key => $section) {
            $data[$key] = array_values(array_map($section->write(...), $build->{$key}));
        }

        return array_filter($data, static fn (mixed $v): bool => $v !== []);
    }

    public static function write(Build $build): string
    {
        return json_encode(self::data($build), JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR)."\n";
    }

    /**
     * @param  Section<object>  $section
     */
    public static function refOf(Section $section, object $entry): string
    {
        $ref = property_exists($entry, 'ref') ? $entry->ref : ($section->write($entry)['ref'] ?? null);

        return is_string($ref) ? $ref : '';
    }
}
