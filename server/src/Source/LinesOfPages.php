<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\ExactLine;

/**
 * Exact lines and words of pages that a program has drawn, as they were kept with the page's pictures.
 *
 * @phpstan-import-type Line from ExactLine
 */
final readonly class LinesOfPages
{
    public const FILE = 'lines.json';
    public const WORDS = 'words.json';
    /** A page with fewer lines is a picture with a frame round it. */
    private const DRAWN = 100;

    public function __construct(private EntityManagerInterface $entities, private FileStore $files)
    {
    }

    /** @return list<Line> within a drawing, px of the page; none of a picture */
    public function of(Drawing $drawing): array
    {
        $lines = [];
        foreach ($this->read($drawing, self::FILE) as $line) {
            $numbers = array_map(self::number(...), $line);
            [$x1, $y1, $x2, $y2] = [...$numbers, 0.0, 0.0, 0.0, 0.0];
            if (self::isIn($drawing, ($x1 + $x2) / 2.0, ($y1 + $y2) / 2.0)) {
                // What was kept before pens were known was drawn with one.
                $line = [$x1, $y1, $x2, $y2, (int) ($numbers[4] ?? 0)];
                $lines[] = isset($numbers[5]) ? [...$line, $numbers[5]] : $line;
            }
        }

        return $lines;
    }

    /**
     * @return list<array{string, float, float, float, float}> words within a drawing that a program has drawn, with left, top, right and
     *                                                         bottom, px of the page; none of a picture, whatever was read off it before
     */
    public function words(Drawing $drawing): array
    {
        $words = [];
        foreach (\count($this->of($drawing)) < self::DRAWN ? [] : $this->read($drawing, self::WORDS) as $word) {
            [$left, $top, $right, $bottom] = array_map(self::number(...), [...\array_slice($word, 1), 0.0, 0.0, 0.0, 0.0]);
            if (\is_string($word[0] ?? null) && self::isIn($drawing, ($left + $right) / 2.0, ($top + $bottom) / 2.0)) {
                $words[] = [$word[0], $left, $top, $right, $bottom];
            }
        }

        return $words;
    }

    /** @return list<list<mixed>> */
    private function read(Drawing $drawing, string $name): array
    {
        $page = $this->entities->find(Page::class, $drawing->beside($drawing->page())->criteria());
        $folder = null === $page ? null : $this->files->pictures($page->key(), $page->pictures());
        $read = null === $folder ? null : json_decode((string) @file_get_contents("$folder/$name"), true);

        return array_values(array_map(static fn (mixed $row): array => \is_array($row) ? array_values($row) : [], \is_array($read) ? $read : []));
    }

    private static function isIn(Drawing $drawing, float $x, float $y): bool
    {
        $box = $drawing->box();

        return $x >= $box->left && $x <= $box->right() && $y >= $box->top && $y <= $box->bottom();
    }

    private static function number(mixed $value): float
    {
        return is_numeric($value) ? (float) $value : 0.0;
    }
}
