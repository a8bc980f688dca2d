<?php

declare(strict_types=1);

namespace Tests\Feature;

use PHPUnit\Framework\TestCase;
use Tests\Support\HttpClient;

/** Several people at once, against the real server: nothing confirmed is lost, nothing is done twice. */
final class RaceTest extends TestCase
{
    private HttpClient $client;

    private int $build;

    private int $workshop;

    protected function setUp(): void
    {
        $this->client = new HttpClient((string) getenv('MAGPIE_URL'));
        $this->client->post('/api/session/demo');
        $list = $this->client->get('/api/builds')[0];
        $this->workshop = $list['id'];
        $this->build = $this->client->post('/api/builds', [
            'workshop' => $this->workshop,
            'name' => 'Race',
            'kind' => 'router',
            'currency' => 'GBP',
        ])['id'];
        $this->edit([['section' => 'needs', 'create' => ['ref' => 'fan', 'role' => 'Fan', 'family' => 'fan']]]);
    }

    protected function tearDown(): void
    {
        $this->client->send('DELETE', "/api/builds/{$this->build}");
    }

    /**
     * @param  list<array<string, mixed>>  $changes
     * @return array<mixed>
     */
    private function edit(array $changes, ?string $key = null): array
    {
        return $this->client->post("/api/builds/{$this->build}/edits", [
            'key' => $key ?? self::uuid(),
            'label' => 'Race',
            'changes' => $changes,
        ]);
    }

    private static function uuid(): string
    {
        return sprintf('%08x-0000-4000-8000-%012x', random_int(0, 0xFFFFFFFF), random_int(0, 0xFFFFFFFFFFFF));
    }

    /**
     * @return array<string, mixed>
     */
    private function fan(): array
    {
        return array_column($this->client->get("/api/builds/{$this->build}")['document']['needs'], null, 'ref')['fan'];
    }

    public function test_candidates_taken_from_the_library_at_the_same_time_are_all_kept(): void
    {
        $fans = array_slice($this->client->get("/api/workshops/{$this->workshop}/library?family=fan")['lines'], 0, 8);
        self::assertCount(8, $fans);
        $requests = array_map(
            fn (array $fan): array => [
                'POST',
                "/api/builds/{$this->build}/needs/fan/candidates",
                ['library' => $fan['id'], 'key' => self::uuid()],
            ],
            $fans,
        );
        // And in the midst of it somebody edits the same need.
        array_splice($requests, 4, 0, [
            [
                'POST',
                "/api/builds/{$this->build}/edits",
                [
                    'key' => self::uuid(),
                    'label' => 'Meanwhile',
                    'changes' => [
                        [
                            'section' => 'needs',
                            'ref' => 'fan',
                            'set' => [['path' => ['role'], 'was' => 'Fan', 'to' => 'Chamber fan']],
                        ],
                    ],
                ],
            ],
        ]);
        $answers = $this->client->together($requests);

        $confirmed = count(array_filter($answers, static fn (array $a): bool => $a[0] === 201));
        self::assertSame(8, $confirmed, (string) json_encode(array_column($answers, 0)));
        self::assertSame(200, $answers[4][0]);
        $fan = $this->fan();
        self::assertCount(8, $fan['candidates'], 'Every one that was confirmed is there.');
        self::assertSame('Chamber fan', $fan['role']);
    }

    public function test_an_edit_of_the_list_and_a_candidate_taken_at_the_same_time_never_lose_one_another(): void
    {
        $fans = array_slice($this->client->get("/api/workshops/{$this->workshop}/library?family=fan")['lines'], 0, 7);
        $this->client->post("/api/builds/{$this->build}/needs/fan/candidates", [
            'library' => $fans[6]['id'],
            'key' => self::uuid(),
        ]);
        for ($round = 0; $round < 6; $round++) {
            $was = $this->fan()['candidates'];
            $kept = array_slice($was, 0, 1);
            $answers = $this->client->together([
                [
                    'POST',
                    "/api/builds/{$this->build}/edits",
                    [
                        'key' => self::uuid(),
                        'label' => 'Only the first',
                        'changes' => [
                            [
                                'section' => 'needs',
                                'ref' => 'fan',
                                'set' => [['path' => ['candidates'], 'was' => $was, 'to' => $kept]],
                            ],
                        ],
                    ],
                ],
                [
                    'POST',
                    "/api/builds/{$this->build}/needs/fan/candidates",
                    ['library' => $fans[$round]['id'], 'key' => self::uuid()],
                ],
            ]);
            self::assertSame(201, $answers[1][0]);
            // Either the edit came first and the new one stands behind what it kept, or it was refused as a conflict.
            self::assertContains($answers[0][0], [200, 409]);
            self::assertCount(
                $answers[0][0] === 200 ? 2 : count($was) + 1,
                $this->fan()['candidates'],
                "round {$round}",
            );
        }
    }

    public function test_the_same_edit_sent_many_times_at_once_is_done_once_and_answered_every_time(): void
    {
        $key = self::uuid();
        $request = [
            'POST',
            "/api/builds/{$this->build}/edits",
            [
                'key' => $key,
                'label' => 'Once',
                'changes' => [
                    ['section' => 'suppliers', 'create' => ['ref' => 'quay', 'name' => 'Quay', 'currency' => 'GBP']],
                ],
            ],
        ];
        $answers = $this->client->together(array_fill(0, 10, $request));

        self::assertSame(array_fill(0, 10, 200), array_column($answers, 0));
        self::assertCount(1, array_unique(array_map(static fn (array $a): int => $a[1]['revision'], $answers)));
        self::assertCount(
            1,
            array_filter(
                $this->client->get("/api/builds/{$this->build}/edits"),
                static fn (array $e): bool => $e['label'] === 'Once',
            ),
        );
    }

    public function test_builds_of_one_name_made_at_the_same_time_are_all_made(): void
    {
        $answers = $this->client->together(
            array_fill(0, 8, [
                'POST',
                '/api/builds',
                ['workshop' => $this->workshop, 'name' => 'Same', 'kind' => 'plotter', 'currency' => 'GBP'],
            ]),
        );
        self::assertSame(array_fill(0, 8, 201), array_column($answers, 0));
        self::assertCount(8, array_unique(array_column(array_column($answers, 1), 'id')));
        foreach ($answers as [, $made]) {
            $this->client->send('DELETE', "/api/builds/{$made['id']}");
        }
    }

    public function test_only_its_own_names_are_answered_to_and_files_carry_the_same_headers(): void
    {
        $url = (string) getenv('MAGPIE_URL');
        $ask = static function (string $path, string $host) use ($url): array {
            $handle = curl_init($url.$path) ?: throw new \RuntimeException('no curl');
            curl_setopt_array($handle, [
                CURLOPT_RETURNTRANSFER => true,
                CURLOPT_HEADER => true,
                CURLOPT_HTTPHEADER => ["Host: {$host}", 'Accept: application/json'],
            ]);

            return [(string) curl_exec($handle), (int) curl_getinfo($handle, CURLINFO_RESPONSE_CODE)];
        };
        self::assertSame(400, $ask('/api/session', 'evil.example')[1]);
        self::assertSame(400, $ask('/api/session', 'evil.example:8791')[1]);
        foreach (['/api/session', '/', '/mark.svg'] as $path) {
            [$answer, $status] = $ask($path, 'localhost');
            self::assertSame(200, $status);
            self::assertMatchesRegularExpression(
                "/content-security-policy: default-src 'self'; script-src 'self'/i",
                $answer,
                $path,
            );
            self::assertDoesNotMatchRegularExpression('/x-powered-by|access-control-allow-origin/i', $answer, $path);
        }
    }

    public function test_what_is_read_while_others_write_is_of_one_moment(): void
    {
        // Two places that are always edited together are never read apart.
        $this->edit([
            ['section' => 'build', 'set' => [['path' => ['purpose'], 'to' => '0']]],
            ['section' => 'needs', 'ref' => 'fan', 'set' => [['path' => ['role'], 'to' => '0']]],
        ]);
        $requests = [];
        for ($i = 1; $i <= 30; $i++) {
            $requests[] = [
                'POST',
                "/api/builds/{$this->build}/edits",
                [
                    'key' => self::uuid(),
                    'label' => (string) $i,
                    'changes' => [
                        ['section' => 'build', 'set' => [['path' => ['purpose'], 'to' => (string) $i]]],
                        ['section' => 'needs', 'ref' => 'fan', 'set' => [['path' => ['role'], 'to' => (string) $i]]],
                    ],
                ],
            ];
            $requests[] = ['GET', "/api/builds/{$this->build}", null];
            $requests[] = ['GET', "/api/builds/{$this->build}/file", null];
        }
        $seen = 0;
        foreach ($this->client->together($requests, 8) as [$status, $answer]) {
            self::assertSame(200, $status);
            $document = $answer['document'] ?? (isset($answer['magpie']) ? $answer : null);
            if ($document !== null) {
                self::assertSame($document['build']['purpose'], $document['needs'][0]['role']);
                $seen++;
            }
        }
        self::assertSame(60, $seen);
    }
}
