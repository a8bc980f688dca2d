<?php

declare(strict_types=1);

namespace Tests\Feature;

use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Route as Router;

/** The published contract and the routes are the same list. */
final class ContractTest extends FeatureTestCase
{
    public function test_every_route_is_in_the_contract_and_every_path_of_the_contract_is_a_route(): void
    {
        $contract = json_decode((string) file_get_contents(base_path('docs/api/openapi.json')), true);
        $published = [];
        foreach ($contract['paths'] as $path => $operations) {
            foreach (array_diff(array_keys($operations), ['parameters']) as $method) {
                $published[] = strtoupper($method).' '.$path;
            }
        }
        $served = [];
        /** @var Route $route */
        foreach (Router::getRoutes()->getRoutes() as $route) {
            if (str_starts_with($route->uri(), 'api/')) {
                $served[] = $route->methods()[0].' /'.$route->uri();
            }
        }
        sort($published);
        sort($served);

        self::assertSame($served, $published);
    }

    public function test_the_docs_written_from_the_code_are_current(): void
    {
        $written = static fn (): array => array_map(
            static fn (string $doc): string => (string) file_get_contents(base_path("docs/{$doc}.md")),
            ['checks', 'terms', 'format/families'],
        );
        $before = $written();
        exec(escapeshellarg(PHP_BINARY).' '.escapeshellarg(base_path('bin/docs.php')), $output, $status);

        self::assertSame(0, $status);
        self::assertSame(
            $before,
            $written(),
            'Run bin/magpie docs.',
        );
    }

    public function test_the_interface_is_served_at_any_address_but_never_for_the_api(): void
    {
        foreach (['/', '/sign-in', '/builds/1/prove/fit', '/nowhere/at/all'] as $path) {
            $this->get($path)->assertOk()->assertSee('id="app"', false);
        }
        $this->getJson('/api/nowhere')->assertNotFound()->assertHeader('Content-Type', 'application/problem+json');
    }
}
