<?php

declare(strict_types=1);

namespace Tests\Support;

use PDO;

/**
 * A copy of the demo's printer that cannot be read any more: broken the way nothing in the application can, behind its
 * back.
 */
final class BrokenBuild
{
    /** @return int its number */
    public static function copy(HttpClient $client, string $name): int
    {
        $file = (string) preg_replace(
            '/"name": "Dunlin"/',
            "\"name\": \"{$name}\"",
            (string) file_get_contents(dirname(__DIR__, 2).'/demo/dunlin.json'),
            1,
        );

        return $client->post('/api/builds', [
            'workshop' => $client->get('/api/builds')[0]['id'],
            'file' => $file,
        ])['id'];
    }

    public static function break(int $build): void
    {
        self::behindItsBack(
            "UPDATE needs SET family = 'no_such_family' WHERE build_id = {$build} AND ref = 'belt'; UPDATE snapshots SET revision = 0, judged = 0 WHERE build_id = {$build}",
        );
    }

    public static function behindItsBack(string $sql): void
    {
        $settings = (string) file_get_contents(
            dirname(__DIR__, 2).'/.data/'.(getenv('MAGPIE_INSTANCE') ?: 'test').'/.env',
        );
        preg_match('/^DB_PORT="(\d+)"/m', $settings, $port);
        preg_match('/^DB_PASSWORD="([^"]*)"/m', $settings, $password);
        $port === [] ||
            $password === [] ||
            (new PDO("mysql:host=127.0.0.1;port={$port[1]};dbname=magpie", 'magpie', $password[1]))->exec($sql);
    }
}
