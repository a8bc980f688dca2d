<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Builds\Document;
use App\Builds\Store;
use Illuminate\Support\Str;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/**
 * Edits nobody would make, over the real routes: each is answered in words, none is a crash, and the build stays
 * readable.
 */
final class FuzzTest extends FeatureTestCase
{
    /** A number, not a time: how many are taken must not hang on how fast the machine is. */
    private const EDITS = 200;

    private const VALUES = [
        null,
        true,
        0,
        -1,
        7,
        608,
        1_000_000_000,
        PHP_INT_MAX,
        1.5,
        '',
        '0',
        '608',
        '-1 mm',
        '0 mm',
        '1e15 m',
        '24 V',
        '1E400 AWG',
        '300 °C',
        'x.y',
        'psu.out',
        'bed',
        'P-bed',
        "a\0b",
        "2026-01-01\0",
        '2026-11-27',
        '12.50',
        '-10 %',
        '15 %',
        'open',
        'fixed',
        [],
        ['1'],
        ['bed', 'bed'],
        ['1' => '100 %'],
        [['what' => 'x']],
        ['value' => '24 V', 'evidence' => 'measured'],
    ];

    private const KEYS = [
        'ref',
        'name',
        'role',
        'family',
        'quantity',
        'choice',
        'candidates',
        'specs',
        'value',
        'rated_voltage',
        'ports',
        'from',
        'to',
        'length',
        'conductor',
        'size',
        'ends',
        'contact',
        'loads',
        'uses',
        'after',
        'timings',
        'start',
        'price',
        'pack',
        'date',
        'supplier',
        'part',
        '1',
        '0',
        0,
        1,
        7,
        'drive',
        'motors',
        'box',
        'holds',
        'facts',
        'state',
        'check',
        'measured',
    ];

    public function test_any_edit_is_answered_and_the_build_stays_whole(): void
    {
        $this->as($this->isla());
        $build = $this->dunlin();
        $dice = new Randomizer(new Xoshiro256StarStar(20_261_127));
        $pick = static fn (array $from): mixed => $from[$dice->getInt(0, count($from) - 1)];
        $document = $this->getJson("/api/builds/{$build->id}")->json('document');
        $wanted = (int) (getenv('MAGPIE_FUZZ') ?: self::EDITS);
        $answers = [];
        for ($i = 0; $i < $wanted; $i++) {
            $section = $pick([...array_keys(array_filter($document, is_array(...))), 'nowhere']);
            $entries = array_is_list($document[$section] ?? []) ? $document[$section] ?? [] : [];
            $entry = $entries === [] ? [] : $pick($entries);
            $change = match ($dice->getInt(0, 5)) {
                0 => [
                    'section' => $section,
                    'create' => array_replace(
                        $entry,
                        ['ref' => $pick(['608', 'new', 'NEW', "n{$i}", '', 'a b', 'é'])],
                        [(string) $pick(self::KEYS) => $pick(self::VALUES)],
                    ),
                ],
                1 => ['section' => $section, 'ref' => $entry['ref'] ?? '', 'delete' => true],
                default => [
                    'section' => $section,
                    'ref' => $entry['ref'] ?? '',
                    'set' => [
                        [
                            'path' => array_map(
                                static fn (): string|int => $pick(self::KEYS),
                                range(0, $dice->getInt(0, 3)),
                            ),
                            'to' => $pick(self::VALUES),
                        ],
                    ],
                ],
            };
            $answer = match ($dice->getInt(0, 14)) {
                0 => $this->postJson("/api/builds/{$build->id}/undo"),
                1 => $this->postJson("/api/builds/{$build->id}/redo"),
                default => $this->postJson("/api/builds/{$build->id}/edits", [
                    'key' => (string) Str::uuid(),
                    'label' => 'fuzz',
                    'changes' => [$change],
                ]),
            };
            $answers[$answer->getStatusCode()] = ($answers[$answer->getStatusCode()] ?? 0) + 1;
            self::assertContains(
                $answer->getStatusCode(),
                [200, 409, 422],
                $i.
                    ': '.
                    json_encode($change, JSON_PARTIAL_OUTPUT_ON_ERROR).
                    ' '.
                    substr((string) $answer->getContent(), 0, 300),
            );
            if ($answer->getStatusCode() === 200) {
                self::assertNull($answer->json('trouble'), (string) json_encode($change));
                $document =
                    $i % 10 === 0
                        ? $this->getJson("/api/builds/{$build->id}")
                            ->assertOk()
                            ->json('document')
                        : $document;
            }
        }
        self::assertGreaterThan(20, $answers[200] ?? 0, 'Some edits are taken, or this tests nothing.');
        self::assertSame(
            Document::json((new Store($build->refresh()))->document()),
            Document::json(Document::of($build)->data),
            'The tables and what is answered are the same.',
        );
    }
}
