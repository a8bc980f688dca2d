<?php

declare(strict_types=1);

namespace Magpie\Bin;

use SodiumException;

/**
 * A file nobody reads or changes without its passphrase or key: libsodium's secretstream (XChaCha20-Poly1305), piece by piece, so
 * that its size does not matter. Each piece is authenticated, and so is that none is missing, doubled or in another place; the key
 * of a passphrase is made with Argon2id.
 */
final readonly class Sealed
{
    private const MAGIC = "MAGPIE-SEALED-1\n";

    private const PIECE = 65_536;

    /** Of a passphrase. */
    public const SHORTEST = 12;

    /**
     * @param  string  $secret  a passphrase, or the 32 bytes of a key
     */
    private function __construct(private string $secret, private bool $isKey)
    {
    }

    /** @throws Failure */
    public static function byPassphrase(string $passphrase): self
    {
        if (mb_strlen($passphrase) < self::SHORTEST) {
            throw new Failure('a passphrase for a backup has at least '.self::SHORTEST.' characters.', 2);
        }

        return new self($passphrase, false);
    }

    /**
     * @param  string  $file  made here where it is not there yet
     *
     * @throws Failure
     */
    public static function byKeyFile(string $file, bool $make = false): self
    {
        if ($make && ! is_file($file)) {
            if (! @touch($file) || ! chmod($file, 0600)) {
                throw new Failure("{$file} cannot be written.");
            }
            file_put_contents($file, base64_encode(random_bytes(SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_KEYBYTES))."\n");
        }
        $key = base64_decode(trim((string) @file_get_contents($file)), true);
        if ($key === false || strlen($key) !== SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_KEYBYTES) {
            throw new Failure("{$file} is not a key for backups: 32 bytes in base 64.", 2);
        }

        return new self($key, true);
    }

    public static function is(string $file): bool
    {
        return @file_get_contents($file, length: strlen(self::MAGIC)) === self::MAGIC;
    }

    /** @throws Failure */
    public function seal(string $from, string $to): void
    {
        [$in, $out] = [self::open($from, 'rb'), self::open($to, 'wb')];
        chmod($to, 0600);
        $salt = random_bytes(SODIUM_CRYPTO_PWHASH_SALTBYTES);
        $head = self::MAGIC.($this->isKey ? 'k' : 'p').$salt;
        [$state, $header] = sodium_crypto_secretstream_xchacha20poly1305_init_push($this->key($salt));
        self::put($out, $head.$header, $to);
        for ($piece = self::piece($in, self::PIECE), $last = false; ! $last;) {
            $next = self::piece($in, self::PIECE);
            $last = $next === '';
            self::put(
                $out,
                sodium_crypto_secretstream_xchacha20poly1305_push(
                    $state,
                    $piece,
                    $head,
                    $last
                        ? SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_TAG_FINAL
                        : SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_TAG_MESSAGE,
                ),
                $to,
            );
            $piece = $next;
        }
        fclose($in);
        if (! fclose($out)) {
            throw new Failure("{$to} could not be written.");
        }
    }

    /** @throws Failure when the secret is another, or anything in it was changed, cut off or added */
    public function unseal(string $from, string $to): void
    {
        $in = self::open($from, 'rb');
        $head = self::piece($in, strlen(self::MAGIC) + 1 + SODIUM_CRYPTO_PWHASH_SALTBYTES);
        $header = self::piece($in, SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_HEADERBYTES);
        $isKey = ($head[strlen(self::MAGIC)] ?? '') === 'k';
        if (! str_starts_with($head, self::MAGIC) || strlen($header) !== SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_HEADERBYTES) {
            throw new Failure("{$from} is not an encrypted backup.", 2);
        }
        if ($isKey !== $this->isKey) {
            throw new Failure("{$from} was encrypted with a ".($isKey ? 'key file: --key=FILE.' : 'passphrase, not with a key file.'), 2);
        }
        $state = sodium_crypto_secretstream_xchacha20poly1305_init_pull(
            $header,
            $this->key(substr($head, -SODIUM_CRYPTO_PWHASH_SALTBYTES)),
        );
        $out = self::open($to, 'wb');
        chmod($to, 0600);
        for ($isFinal = false; ! $isFinal;) {
            $piece = self::piece($in, self::PIECE + SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_ABYTES);
            try {
                $read = $piece === '' ? false : sodium_crypto_secretstream_xchacha20poly1305_pull($state, $piece, $head);
            } catch (SodiumException) {
                $read = false;
            }
            if ($read === false) {
                throw self::refused($from, $to);
            }
            self::put($out, $read[0], $to);
            $isFinal = $read[1] === SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_TAG_FINAL;
        }
        if (self::piece($in, 1) !== '') {
            throw self::refused($from, $to);
        }
        fclose($in);
        fclose($out);
    }

    private static function refused(string $from, string $to): Failure
    {
        @unlink($to);

        return new Failure(
            "{$from} does not open: the passphrase or key is another, or the file was changed or cut off. Nothing was restored.",
            2,
        );
    }

    private function key(string $salt): string
    {
        return $this->isKey
            ? $this->secret
            : sodium_crypto_pwhash(
                SODIUM_CRYPTO_SECRETSTREAM_XCHACHA20POLY1305_KEYBYTES,
                $this->secret,
                $salt,
                SODIUM_CRYPTO_PWHASH_OPSLIMIT_MODERATE,
                SODIUM_CRYPTO_PWHASH_MEMLIMIT_MODERATE,
                SODIUM_CRYPTO_PWHASH_ALG_ARGON2ID13,
            );
    }

    /**
     * @return resource
     *
     * @throws Failure
     */
    private static function open(string $file, string $mode)
    {
        return @fopen($file, $mode) ?: throw new Failure("{$file} cannot be opened.");
    }

    /**
     * @param  resource  $in
     * @param  int<1, max>  $size
     */
    private static function piece($in, int $size): string
    {
        return (string) stream_get_contents($in, $size);
    }

    /**
     * @param  resource  $out
     *
     * @throws Failure
     */
    private static function put($out, string $bytes, string $file): void
    {
        if (fwrite($out, $bytes) !== strlen($bytes)) {
            throw new Failure("{$file} could not be written: is the disk full?");
        }
    }
}
