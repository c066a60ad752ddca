<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf\Internal;

/** One thing of a DXF file: its kind and its groups of code and value, in order. */
final readonly class Entity
{
    /** @param list<array{int, string}> $groups */
    public function __construct(public string $kind, public array $groups)
    {
    }

    public function text(int $code): string
    {
        foreach ($this->groups as [$c, $value]) {
            if ($c === $code) {
                return $value;
            }
        }

        return '';
    }

    public function number(int $code, float $otherwise = 0.0): float
    {
        $text = $this->text($code);

        return is_numeric($text) ? (float) $text : $otherwise;
    }

    /** @return list<float> every value of a code */
    public function numbers(int $code): array
    {
        $numbers = [];
        foreach ($this->groups as [$c, $value]) {
            if ($c === $code) {
                $numbers[] = is_numeric($value) ? (float) $value : 0.0;
            }
        }

        return $numbers;
    }

    /** @return list<array{float, float, float}> points whose x has this code, y ten and z twenty more */
    public function points(int $code): array
    {
        $points = [];
        foreach ($this->groups as [$c, $value]) {
            $n = is_numeric($value) ? (float) $value : 0.0;
            $last = $points[\count($points) - 1] ?? null;
            if ($c === $code) {
                $points[] = [$n, 0.0, 0.0];
            } elseif (null !== $last && $c === $code + 10) {
                $points[\count($points) - 1] = [$last[0], $n, $last[2]];
            } elseif (null !== $last && $c === $code + 20) {
                $points[\count($points) - 1] = [$last[0], $last[1], $n];
            }
        }

        return array_values($points);
    }

    public function plane(): Plane
    {
        return new Plane($this->number(210), $this->number(220), $this->number(230, 1.0));
    }
}
