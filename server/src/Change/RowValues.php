<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\Json\JsonValue;
use Symfony\Component\Uid\Uuid;

/** The values of a row as they came in, read strictly; errors name the path in the request. */
final readonly class RowValues
{
    public const FURTHEST_MM = 1e7;

    private JsonValue $json;

    /**
     * @param array<string, mixed> $values
     * @param list<string> $keys the only ones allowed
     */
    public function __construct(array $values, private string $at, array $keys)
    {
        $this->json = JsonValue::of($values, $at)->object($keys);
    }

    public function at(string $key): string
    {
        return '' === $this->at ? $key : $this->at.'/'.$key;
    }

    public function id(string $key): Uuid
    {
        return self::uuid($this->json->get($key));
    }

    public function optionalId(string $key): ?Uuid
    {
        $value = $this->json->optional($key);

        return null === $value ? null : self::uuid($value);
    }

    public function name(string $key, int $longest = 120): string
    {
        $value = $this->json->get($key);
        $text = trim($value->text($longest));

        return '' === $text || 1 === preg_match('/[\r\n\t]/', $text) ? throw UnreadableDocument::outOfRange(
            $value->at,
            'one line of something: it cannot stay empty',
        ) : $text;
    }

    /** Some words, in one line or several. */
    public function words(string $key, int $longest): string
    {
        $value = $this->json->get($key);
        $text = trim($value->text($longest));

        return '' === $text ? throw UnreadableDocument::outOfRange($value->at, 'something: it cannot stay empty') : $text;
    }

    public function text(string $key, int $longest = 120): string
    {
        return $this->json->optional($key)?->text($longest) ?? '';
    }

    public function number(string $key): float
    {
        $value = $this->json->get($key);
        $number = $value->number();

        // Nothing on Earth that is drawn lies further off than this, and doubles keep a nanometre there.
        return abs($number) <= 1e9 ? $number : throw UnreadableDocument::outOfRange($value->at, 'between −1e9 and 1e9');
    }

    /** A coordinate of the model, mm: no site that is drawn on one sheet reaches further from its zero than 10 km. */
    public function place(string $key): float
    {
        $number = $this->number($key);

        return abs($number) <= self::FURTHEST_MM ? $number : throw UnreadableDocument::outOfRange(
            $this->at($key),
            \sprintf('within %d km of the zero', self::FURTHEST_MM / 1e6),
        );
    }

    public function optionalNumber(string $key): ?float
    {
        return null === $this->json->optional($key) ? null : $this->number($key);
    }

    public function positive(string $key, float $most = 1e9): float
    {
        return $this->json->get($key)->positive($most);
    }

    public function optionalPositive(string $key, float $most = 1e9): ?float
    {
        return $this->json->optional($key)?->positive($most);
    }

    public function notNegative(string $key): float
    {
        return $this->json->get($key)->notNegative();
    }

    public function flag(string $key): bool
    {
        return $this->json->optional($key)?->boolean() ?? false;
    }

    public function flagOr(string $key, bool $otherwise): bool
    {
        return $this->json->optional($key)?->boolean() ?? $otherwise;
    }

    public function count(string $key): int
    {
        return $this->json->get($key)->count();
    }

    /**
     * @template T of \BackedEnum
     *
     * @param class-string<T> $enum
     *
     * @return T
     */
    public function choice(string $key, string $enum): \BackedEnum
    {
        return $this->json->get($key)->choice($enum);
    }

    /**
     * @template T of \BackedEnum
     *
     * @param T $otherwise for rows written before the value was known
     *
     * @return T
     */
    public function choiceOr(string $key, \BackedEnum $otherwise): \BackedEnum
    {
        return $this->json->optional($key)?->choice($otherwise::class) ?? $otherwise;
    }

    public function countOr(string $key, int $otherwise): int
    {
        return $this->json->optional($key)?->count() ?? $otherwise;
    }

    public static function uuid(JsonValue $value): Uuid
    {
        $text = $value->text();

        return Uuid::isValid($text) ? Uuid::fromString($text) : throw UnreadableDocument::outOfRange($value->at, 'a UUID');
    }
}
