<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\EntityManagerInterface;

/** Exact lines of pages that a program has drawn, as they were kept with the page's pictures. */
final readonly class LinesOfPages
{
    public const FILE = 'lines.json';

    public function __construct(private EntityManagerInterface $entities, private FileStore $files)
    {
    }

    /** @return list<array{float, float, float, float, int}> within a drawing, px of the page, and the number of the pen; none of a picture */
    public function of(Drawing $drawing): array
    {
        $page = $this->entities->find(Page::class, $drawing->beside($drawing->page())->criteria());
        $folder = null === $page ? null : $this->files->pictures($page->key(), $page->pictures());
        $read = null === $folder ? null : json_decode((string) @file_get_contents($folder.'/'.self::FILE), true);
        $box = $drawing->box();
        $lines = [];
        foreach (\is_array($read) ? $read : [] as $line) {
            $numbers = array_map(static fn (mixed $v): float => is_numeric($v) ? (float) $v : 0.0, \is_array($line) ? array_values($line) : []);
            [$x1, $y1, $x2, $y2] = [...$numbers, 0.0, 0.0, 0.0, 0.0];
            [$x, $y] = [($x1 + $x2) / 2.0, ($y1 + $y2) / 2.0];
            if ($x >= $box->left && $x <= $box->right() && $y >= $box->top && $y <= $box->bottom()) {
                // What was kept before pens were known was drawn with one.
                $lines[] = [$x1, $y1, $x2, $y2, (int) ($numbers[4] ?? 0)];
            }
        }

        return $lines;
    }
}
