<?php

declare(strict_types=1);

namespace Magpie\Bin\Production;

/** What a server for strangers is made of: its names, folders and ports. */
final readonly class Server
{
    /**
     * @param  string  $root  the checkout
     * @param  string  $name  of units, pool and site
     * @param  string  $instance  whose folder under .data/ holds settings, files and keys
     * @param  string  $etc  where its configuration is written
     * @param  string  $home  files, keys, backups
     * @param  string  $user  that runs it
     * @param  array{string, string}|null  $tls  certificate and key
     * @param  list<string>  $sockets  of the php-fpm pools, one an application server
     */
    public function __construct(
        public string $root,
        public string $name,
        public string $instance,
        public string $host,
        public string $etc,
        public string $home,
        public string $logs,
        public string $user,
        public ?array $tls,
        public array $sockets,
        public int $workers,
        public string $listen,
    ) {
    }

    /** What a process beside the web server may not do: nearly everything but reading the code and writing its own folders. */
    private const SANDBOX = [
        'NoNewPrivileges' => 'yes',
        'UMask' => '0077',
        'ProtectSystem' => 'strict',
        'ProtectHome' => 'yes',
        'PrivateTmp' => 'yes',
        'PrivateDevices' => 'yes',
        'PrivateUsers' => 'yes',
        'ProtectHostname' => 'yes',
        'ProtectClock' => 'yes',
        'ProtectKernelTunables' => 'yes',
        'ProtectKernelModules' => 'yes',
        'ProtectKernelLogs' => 'yes',
        'ProtectControlGroups' => 'yes',
        'ProtectProc' => 'invisible',
        'RestrictAddressFamilies' => 'AF_UNIX AF_INET AF_INET6',
        'RestrictNamespaces' => 'yes',
        'RestrictRealtime' => 'yes',
        'RestrictSUIDSGID' => 'yes',
        'LockPersonality' => 'yes',
        'RemoveIPC' => 'yes',
        'CapabilityBoundingSet' => '',
        'SystemCallArchitectures' => 'native',
        'SystemCallFilter' => "@system-service\nSystemCallFilter=~@privileged @resources",
    ];

    /** With forward secrecy and authenticated encryption only; TLS 1.3 brings its own. */
    private const CIPHERS = 'ECDHE-ECDSA-AES128-GCM-SHA256:ECDHE-RSA-AES128-GCM-SHA256:ECDHE-ECDSA-AES256-GCM-SHA384:ECDHE-RSA-AES256-GCM-SHA384:ECDHE-ECDSA-CHACHA20-POLY1305:ECDHE-RSA-CHACHA20-POLY1305';

    private const PROTOCOLS = "    ssl_protocols TLSv1.2 TLSv1.3;\n    ssl_ciphers ".self::CIPHERS.";\n    ssl_prefer_server_ciphers off;\n";

    public function url(): string
    {
        $port = preg_match('/:(\d+)$/', $this->listen, $m) === 1 ? ":{$m[1]}" : '';

        return ($this->tls === null ? 'http' : 'https')."://{$this->host}{$port}";
    }

    /**
     * @return array<string, string> what stands for each {{word}} of a template
     */
    public function words(int $pool = 0): array
    {
        $php = 'php'.PHP_MAJOR_VERSION.'.'.PHP_MINOR_VERSION;

        return [
            'name' => $this->name,
            'instance' => $this->instance,
            'root' => $this->root,
            'host' => $this->host,
            'etc' => $this->etc,
            'home' => $this->home,
            'logs' => $this->logs,
            'user' => $this->user,
            'php' => "/usr/bin/{$php}",
            'workers' => (string) $this->workers,
            'socket' => $this->sockets[$pool],
            'pool_user' => "user = {$this->user}\ngroup = {$this->user}\nlisten.owner = www-data\nlisten.group = www-data",
            'upstreams' => implode(
                "\n",
                array_map(static fn (string $s): string => "    server unix:{$s} max_fails=0;", $this->sockets),
            ),
            'sandbox' => implode("\n", array_map(
                static fn (string $n, string $v): string => "{$n}={$v}",
                array_keys(self::SANDBOX),
                self::SANDBOX,
            ))."\nReadWritePaths={$this->home} {$this->root}/storage {$this->root}/bootstrap/cache {$this->logs}",
            'fastcgi_params' => '/etc/nginx/fastcgi_params',
            'https' => $this->tls === null ? '""' : 'on',
            'listen' => $this->listen.($this->tls === null ? '' : ' ssl http2'),
            'tls' => $this->tls === null
                    ? '    # Without a certificate: only behind something that has one, or on a network one trusts.'
                    : "    ssl_certificate {$this->tls[0]};\n    ssl_certificate_key {$this->tls[1]};\n".
                        self::PROTOCOLS."    ssl_session_cache shared:{$this->name}:10m;\n".
                        "    ssl_session_tickets off;\n".
                        '    add_header Strict-Transport-Security "max-age=31536000" always;',
            'plain_server' => $this->tls === null || $this->listen !== '443'
                    ? ''
                    : "server {\n    listen 80;\n    server_name {$this->host};\n    server_tokens off;\n    access_log off;\n    return 308 https://{$this->host}\$request_uri;\n}\n".
                        "server {\n    listen 80 default_server;\n    server_name _;\n    server_tokens off;\n    access_log off;\n    return 444;\n}\n",
            // Whoever asks for another name, or none, is not served, not even a file.
            'other_names' => "server {\n    listen {$this->listen}".($this->tls === null ? '' : ' ssl').' default_server;'.
                "\n    server_name _;\n    server_tokens off;\n    access_log off;\n    ".
                ($this->tls === null ? 'return 444;' : 'ssl_reject_handshake on;').(
                    // Which version is spoken is settled by this one, before a name is known.
                    $this->tls === null ? '' : "\n".self::PROTOCOLS
                )."\n}\n",
        ];
    }

    /**
     * The files of it, by path under {$etc}: configuration only, nothing of the data.
     *
     * @return array<string, string>
     */
    public function files(): array
    {
        $files = [];
        foreach (
            [
                'nginx.conf',
                'php.ini',
                'judge.service',
                'errands.service',
                'inspector.service',
                'backup.service',
                'backup.timer',
                'logrotate',
            ] as $name
        ) {
            $files[$name] = $this->fill($name, $this->words());
        }
        foreach (array_keys($this->sockets) as $pool) {
            $files['php-fpm'.($pool === 0 ? '' : "-{$pool}").'.conf'] = $this->fill(
                'php-fpm.conf',
                $this->words($pool),
            );
        }
        // Sent with files too: the same list the application sends with its answers.
        $headers = '';
        /** @var array<string, string> $sent */
        $sent = require "{$this->root}/config/headers.php";
        foreach ($sent as $header => $value) {
            $headers .= "add_header {$header} \"{$value}\" always;\n";
        }
        // What a location adds stands in place of what the server adds.
        $files['headers.conf'] =
            $headers.
            ($this->tls === null ? '' : "add_header Strict-Transport-Security \"max-age=31536000\" always;\n");

        return $files;
    }

    /**
     * The settings of the application that follow from how it is served.
     *
     * @return array<string, string>
     */
    public function decided(string $key, string $socket, string $database, string $user, string $password): array
    {
        return [
            'APP_KEY' => $key,
            'APP_URL' => $this->url(),
            'MAGPIE_HOSTS' => $this->host,
            'SANCTUM_STATEFUL_DOMAINS' => (string) preg_replace('#^https?://#', '', $this->url()),
            'SESSION_SECURE_COOKIE' => $this->tls === null ? 'false' : 'true',
            'DB_SOCKET' => $socket,
            'DB_DATABASE' => $database,
            'DB_USERNAME' => $user,
            'DB_PASSWORD' => $password,
            'MAGPIE_DEMO' => 'false',
            'MAGPIE_FILES' => "{$this->home}/files",
            'MAGPIE_SESSIONS' => "{$this->home}/sessions",
            'MAGPIE_CACHE' => "{$this->home}/cache",
            'MAGPIE_INSPECTOR' => "{$this->home}/inspector.sock",
            'MAGPIE_LOG' => "{$this->logs}/app.log",
            'LOG_CHANNEL' => 'structured',
        ];
    }

    /**
     * @param  array<string, string>  $words
     */
    private function fill(string $template, array $words): string
    {
        $text = (string) file_get_contents("{$this->root}/deploy/{$template}");

        return strtr(
            $text,
            array_combine(array_map(static fn (string $w): string => "{{{$w}}}", array_keys($words)), $words),
        );
    }
}
