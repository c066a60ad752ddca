<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\RowValues;

/**
 * Places of a line or round a shape, as they stand in a row: "x y", or "x y rise" where an arc begins, with semicolons between
 * them and strokes between shapes; mm.
 */
final class Places
{
    public const LONGEST = 60_000;
    private const MOST = 1000;

    /**
     * @return list<array{Point, float}> with the rise of the edge that begins there
     *
     * @throws UnreadableDocument with the place where it breaks off
     */
    public static function read(string $text, string $at): array
    {
        $places = [];
        foreach ('' === trim($text) ? [] : explode(';', $text) as $part) {
            $numbers = explode(' ', (string) preg_replace('/\s+/', ' ', trim($part)));
            $isGood = \in_array(\count($numbers), [2, 3], true) && array_filter($numbers, is_numeric(...)) === $numbers;
            $values = array_map(static fn (string $n): float => (float) $n, $isGood ? $numbers : ['0', '0']);
            $far = max(array_map(abs(...), $values));
            if (!$isGood || $far > RowValues::FURTHEST_MM || \count($places) >= self::MOST) {
                throw UnreadableDocument::outOfRange($at, \sprintf(
                    'places as "x y" or "x y rise" in mm with semicolons between them, within 10 km, not "%s"',
                    mb_substr(trim($part), 0, 40),
                ));
            }
            $places[] = [new Point($values[0], $values[1]), $values[2] ?? 0.0];
        }

        return $places;
    }

    /**
     * The same text with its places elsewhere.
     *
     * @param \Closure(Point, float): array{Point, float} $elsewhere of a place and the rise of its edge
     */
    public static function mapped(string $text, \Closure $elsewhere): string
    {
        $number = static fn (float $mm): string => json_encode(round($mm, 6), \JSON_THROW_ON_ERROR);
        $shapes = [];
        foreach ('' === trim($text) ? [] : explode('|', $text) as $shape) {
            $places = [];
            foreach (self::read($shape, 'places') as [$at, $rise]) {
                [$to, $risen] = $elsewhere($at, $rise);
                $places[] = $number($to->x).' '.$number($to->y).(0.0 === $rise ? '' : ' '.$number($risen));
            }
            $shapes[] = implode('; ', $places);
        }

        return implode('|', $shapes);
    }

    /** The same text as it lies over the same pixels of a drawing that was trued anew. */
    public static function carried(string $text, PixelToMm $old, PixelToMm $next): string
    {
        return self::mapped($text, static function (Point $at, float $rise) use ($old, $next): array {
            $px = $old->toPixel($at);

            return [$next->toMm($px), $rise * $next->mmPerPixelAt($px) / $old->mmPerPixelAt($px)];
        });
    }
}
