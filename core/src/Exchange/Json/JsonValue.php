<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Json;

use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Geometry\Point;

/**
 * A value inside a JSON document with its path, read strictly: each reader names what it expects and every error says
 * where. Paths are keys and indices joined by `/`.
 */
final readonly class JsonValue
{
    private function __construct(private mixed $value, public string $at)
    {
    }

    /** @throws UnreadableDocument when the text is no JSON */
    public static function parse(string $json): self
    {
        try {
            return new self(json_decode($json, true, 64, \JSON_THROW_ON_ERROR), '');
        } catch (\JsonException $e) {
            throw UnreadableDocument::notJson($e->getMessage());
        }
    }

    public static function of(mixed $value, string $at = ''): self
    {
        return new self($value, $at);
    }

    /** @param list<string> $keys the only keys allowed */
    public function object(array $keys): self
    {
        if (!\is_array($this->value) || ([] !== $this->value && array_is_list($this->value))) {
            throw UnreadableDocument::wrongType($this->at, 'an object', $this->value);
        }
        foreach (array_keys($this->value) as $key) {
            if (!\in_array((string) $key, $keys, true)) {
                throw UnreadableDocument::unknownKey($this->path((string) $key));
            }
        }

        return $this;
    }

    public function get(string $key): self
    {
        return $this->optional($key) ?? throw UnreadableDocument::missingKey($this->path($key));
    }

    /** @return self|null null when the key is absent or null */
    public function optional(string $key): ?self
    {
        return \is_array($this->value) && isset($this->value[$key]) ? new self($this->value[$key], $this->path($key)) : null;
    }

    /** @return list<self> of the list under the key; empty when absent */
    public function list(string $key): array
    {
        return $this->optional($key)?->items() ?? [];
    }

    /** @return list<self> of this list */
    public function items(): array
    {
        if (!\is_array($this->value) || !array_is_list($this->value)) {
            throw UnreadableDocument::wrongType($this->at, 'a list', $this->value);
        }

        return array_map(fn (int $i, mixed $v): self => new self($v, $this->at.'/'.$i), array_keys($this->value), $this->value);
    }

    public function number(): float
    {
        if (!\is_int($this->value) && !\is_float($this->value)) {
            throw UnreadableDocument::wrongType($this->at, 'a number', $this->value);
        }
        if (!is_finite((float) $this->value)) {
            throw UnreadableDocument::outOfRange($this->at, 'a number that a computer can hold');
        }

        return (float) $this->value;
    }

    public function positive(float $most = \INF): float
    {
        $number = $this->number();
        if ($number <= 0.0 || $number > $most) {
            throw UnreadableDocument::outOfRange($this->at, \INF === $most ? 'above zero' : \sprintf('above zero and at most %g', $most));
        }

        return $number;
    }

    public function notNegative(): float
    {
        $number = $this->number();
        if ($number < 0.0) {
            throw UnreadableDocument::outOfRange($this->at, 'zero or more');
        }

        return $number;
    }

    /** A whole number from zero on, as databases hold them: below 2³¹. */
    public function count(): int
    {
        $number = $this->number();

        return $number >= 0.0 && $number <= 2_147_483_647.0 && floor($number) === $number
            ? (int) $number
            : throw UnreadableDocument::outOfRange($this->at, 'a whole number from 0 to 2147483647');
    }

    public function isNull(): bool
    {
        return null === $this->value;
    }

    public function boolean(): bool
    {
        return \is_bool($this->value) ? $this->value : throw UnreadableDocument::wrongType($this->at, 'true or false', $this->value);
    }

    public function text(int $longest = 400): string
    {
        if (!\is_string($this->value)) {
            throw UnreadableDocument::wrongType($this->at, 'a text', $this->value);
        }
        if (mb_strlen($this->value) > $longest) {
            throw UnreadableDocument::outOfRange($this->at, \sprintf('at most %d characters long', $longest));
        }
        if (1 === preg_match('/[\x00-\x08\x0B\x0C\x0E-\x1F\x7F]/', $this->value) || !mb_check_encoding($this->value, 'UTF-8')) {
            throw UnreadableDocument::outOfRange($this->at, 'text without control characters');
        }

        return $this->value;
    }

    /**
     * @template T of \BackedEnum
     *
     * @param class-string<T> $enum
     *
     * @return T
     */
    public function choice(string $enum): \BackedEnum
    {
        return $enum::tryFrom($this->text()) ?? throw UnreadableDocument::outOfRange(
            $this->at,
            'one of '.implode(', ', array_map(static fn (\BackedEnum $c): string => (string) $c->value, $enum::cases())),
        );
    }

    /** @param list<string> $words */
    public function word(array $words): string
    {
        $text = $this->text();

        return \in_array($text, $words, true) ? $text : throw UnreadableDocument::outOfRange($this->at, 'one of '.implode(', ', $words));
    }

    /** @return array<string, mixed> the object's members as they are */
    public function map(): array
    {
        if (!\is_array($this->value) || ([] !== $this->value && array_is_list($this->value))) {
            throw UnreadableDocument::wrongType($this->at, 'an object', $this->value);
        }
        $map = [];
        foreach ($this->value as $key => $value) {
            $map[(string) $key] = $value;
        }

        return $map;
    }

    /** @return array{float, float} */
    public function pair(): array
    {
        if (!\is_array($this->value) || !array_is_list($this->value) || 2 !== \count($this->value)) {
            throw UnreadableDocument::wrongType($this->at, 'two numbers [x, y]', $this->value);
        }

        return [(new self($this->value[0], $this->at.'/0'))->number(), (new self($this->value[1], $this->at.'/1'))->number()];
    }

    /** A place in the model, mm. */
    public function point(): Point
    {
        [$x, $y] = $this->pair();
        foreach ([$x, $y] as $i => $number) {
            if (abs($number) > Point::FURTHEST_MM) {
                throw UnreadableDocument::outOfRange("$this->at/$i", \sprintf('within %d km of the zero', Point::FURTHEST_MM / 1e6));
            }
        }

        return new Point($x, $y);
    }

    private function path(string $key): string
    {
        return '' === $this->at ? $key : $this->at.'/'.$key;
    }
}
