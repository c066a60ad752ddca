<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\Assert;

/** Speaks HTTP with the running stack as one browser would, and holds every answer against api/openapi.yaml. */
final class Client
{
    /** of every account that the test command makes */
    public const PASSWORD = 'teal gravel outpaces noon';

    /** head of the latest answer */
    public string $head = '';
    private string $cookies = '';

    public function __construct(private readonly string $address)
    {
    }

    public static function ofStack(): self
    {
        $address = getenv('PLINTH_ADDRESS');
        Assert::assertIsString($address, 'These tests need the running stack: bin/test starts it.');

        return new self($address);
    }

    public function signIn(string $email = 'demo@plinth.example'): self
    {
        'demo@plinth.example' === $email ? $this->ok('POST', '/api/demo-sign-in') : $this->ok(
            'POST',
            '/api/sign-in',
            ['email' => $email, 'password' => self::PASSWORD],
        );

        return $this;
    }

    public function cookies(): string
    {
        return $this->cookies;
    }

    /** Goes on as the same browser at another address. */
    public function takeSessionOf(self $other): void
    {
        $this->cookies = $other->cookies;
    }

    /**
     * @param array<string, mixed>|null $body
     *
     * @return array<mixed>
     */
    public function ok(string $method, string $path, ?array $body = null): array
    {
        [$status, $answer] = $this->send($method, $path, $body);
        Assert::assertLessThan(300, $status, "$method $path: ".json_encode($answer));

        return $answer;
    }

    /**
     * @param array<string, mixed>|null $body
     *
     * @return array<mixed> what stands under `error`, with `rows` and `removed` beside it
     */
    public function refused(int $status, string $method, string $path, ?array $body = null): array
    {
        [$found, $answer] = $this->send($method, $path, $body);
        Assert::assertSame($status, $found, "$method $path: ".json_encode($answer));
        Assert::assertIsArray($answer['error']);

        return $answer['error'] + $answer;
    }

    /**
     * A request with a body as it is, sound JSON or not.
     *
     * @return array{int, array<mixed>}
     */
    public function raw(string $method, string $path, ?string $json): array
    {
        return $this->send($method, $path, text: $json);
    }

    /**
     * @param array<string, mixed>|null $body
     * @param array<string, string|\CURLFile>|null $form
     * @param list<string>|null $headers instead of those of our own pages
     *
     * @return array{int, array<mixed>}
     */
    public function send(
        string $method,
        string $path,
        ?array $body = null,
        ?array $form = null,
        ?array $headers = null,
        ?string $text = null,
    ): array {
        $curl = curl_init($this->address.$path);
        Assert::assertNotFalse($curl);
        $headers ??= ['csrf-token: csrf-token', 'Sec-Fetch-Site: same-origin'];
        if (null !== $body || null !== $text) {
            $headers[] = 'Content-Type: application/json';
        }
        curl_setopt_array($curl, [
            \CURLOPT_CUSTOMREQUEST => '' === $method
                ? 'GET'
                : $method, \CURLOPT_RETURNTRANSFER => true, \CURLOPT_HEADER => true, \CURLOPT_TIMEOUT => 60, \CURLOPT_HTTPHEADER => $headers,
        ]);
        if ('' !== $this->cookies) {
            curl_setopt($curl, \CURLOPT_COOKIE, $this->cookies);
        }
        if (null !== $form || null !== $body || null !== $text) {
            curl_setopt(
                $curl,
                \CURLOPT_POSTFIELDS,
                $form ?? $text ?? json_encode([] === $body ? new \stdClass() : $body, \JSON_THROW_ON_ERROR),
            );
        }
        $raw = curl_exec($curl);
        $status = curl_getinfo($curl, \CURLINFO_RESPONSE_CODE);
        $length = curl_getinfo($curl, \CURLINFO_HEADER_SIZE);
        if (!\is_string($raw)) {
            return [0, []];
        }
        $head = $this->head = substr($raw, 0, $length);
        if (1 === preg_match('/^set-cookie: ([^;]+)/im', $head, $m)) {
            $this->cookies = $m[1];
        }
        $told = substr($raw, $length);
        if (1 !== preg_match('/^content-type: application\/json/im', $head)) {
            return [$status, '' === $told ? [] : ['text' => $told]];
        }
        if (503 !== $status) {
            Contract::check($method, $path, $status, $told);
        }
        if (null !== $body && [] !== $body && $status < 300) {
            Contract::checkRequest($method, $path, json_encode($body, \JSON_THROW_ON_ERROR));
        }
        $answer = json_decode($told, true, 512, \JSON_THROW_ON_ERROR);
        Assert::assertIsArray($answer);

        return [$status, $answer];
    }
}
