<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf;

use Plinth\Core\Exchange\Dxf\Internal\Block;
use Plinth\Core\Exchange\Dxf\Internal\Entity;
use Plinth\Core\Exchange\Dxf\Internal\GroupReader;
use Plinth\Core\Exchange\Dxf\Internal\Insert;
use Plinth\Core\Exchange\Dxf\Internal\Shapes;
use Plinth\Core\Exchange\Dxf\Internal\TextLines;

/**
 * Reads the lines of an ASCII DXF file (DXF reference, 2018: group codes, arbitrary axis algorithm, bulges, knots): lines,
 * polylines, arcs, circles, ellipses, splines, filled corners, edges of hatches, dimensions by their blocks, and inserts with
 * their rows and columns. Curves become chains. What is written comes line by line. What is on a layer that is off or frozen, or is
 * invisible, is left out; so is paper space where model space holds anything. All else is passed over.
 *
 * Nothing in the file is followed to another: what it names is looked for inside it alone.
 *
 * @phpstan-import-type Chain from DxfDrawing
 */
final class DxfLines
{
    /** points of all chains together */
    public const MOST = 400_000;
    private const MOST_TEXTS = 20_000;
    /** inserts that are followed, and how deep one may lie in another */
    private const MOST_INSERTS = 100_000;
    private const DEEPEST = 16;

    /** @var array<string, Block> */
    private array $blocks = [];
    /** @var array<string, true> names of layers that do not show */
    private array $hidden = [];
    /** @var list<Chain> */
    private array $chains = [];
    /** @var list<int> */
    private array $pens = [];
    /** @var array<string, int> */
    private array $penNumbers = [];
    /** @var list<DxfText> */
    private array $texts = [];
    /** lines of letters in blocks and outside them */
    private int $written = 0;
    private int $points = 0;
    private int $inserts = 0;
    private int $unit = 0;

    private function __construct()
    {
    }

    /** @param string $path a file of its own; nothing beside it is looked at */
    public static function read(string $path): DxfDrawing
    {
        $lines = new self();
        $model = new Block();
        $paper = new Block();
        $lines->walk(new GroupReader($path), $model, $paper);
        $lines->draw($model->isEmpty() ? $paper : $model, [1.0, 0.0, 0.0, 1.0, 0.0, 0.0], 0);

        return new DxfDrawing($lines->chains, $lines->unit, $lines->pens, $lines->texts);
    }

    private function walk(GroupReader $groups, Block $model, Block $paper): void
    {
        $section = '';
        $block = null;
        for ($entity = $groups->entity(); null !== $entity; $entity = $groups->entity()) {
            if ('SECTION' === $entity->kind) {
                $section = $entity->text(2);
                $this->unit = 'HEADER' === $section ? self::unitOf($entity) : $this->unit;
            } elseif ('ENDSEC' === $entity->kind) {
                $section = '';
            } elseif ('LAYER' === $entity->kind && 'TABLES' === $section) {
                if ($entity->number(62, 7.0) < 0.0 || 1 === ((int) $entity->number(70) & 1)) {
                    $this->hidden[$entity->text(2)] = true;
                }
            } elseif ('BLOCK' === $entity->kind && 'BLOCKS' === $section) {
                $block = new Block($entity->number(10), $entity->number(20));
                $this->blocks[$entity->text(2)] = $block;
            } elseif ('ENDBLK' === $entity->kind) {
                $block = null;
            } elseif ('ENTITIES' === $section || null !== $block) {
                if (isset($this->hidden[$entity->text(8)]) || 0.0 !== $entity->number(60)) {
                    continue;
                }
                $into = $block ?? (1.0 === $entity->number(67) ? $paper : $model);
                if (\in_array($entity->kind, ['INSERT', 'DIMENSION'], true)) {
                    $into->inserts[] = Insert::of($entity);
                } elseif ($this->points < self::MOST) {
                    foreach ($this->written < self::MOST_TEXTS ? TextLines::of($entity) : [] as $text) {
                        ++$this->written;
                        $into->texts[] = $text;
                    }
                    foreach (Shapes::chains($entity) as $chain) {
                        $this->points += \count($chain);
                        $into->chains[] = $chain;
                        $into->pens[] = $entity->text(8).'|'.$entity->text(62).'|'.$entity->text(370);
                    }
                }
            }
        }
        $this->points = 0;
    }

    /** The header is a list of names (9), each followed by its values. */
    private static function unitOf(Entity $header): int
    {
        $name = '';
        foreach ($header->groups as [$code, $value]) {
            if (9 === $code) {
                $name = $value;
            } elseif (70 === $code && '$INSUNITS' === $name) {
                return (int) $value;
            }
        }

        return 0;
    }

    /** @param array{float, float, float, float, float, float} $m x' = m0 x + m2 y + m4, y' = m1 x + m3 y + m5 */
    private function draw(Block $block, array $m, int $depth): void
    {
        foreach ($block->chains as $k => $chain) {
            $this->points += \count($chain);
            if ($this->points > self::MOST) {
                return;
            }
            $this->chains[] = array_map(
                static fn (array $p): array => [$m[0] * $p[0] + $m[2] * $p[1] + $m[4], $m[1] * $p[0] + $m[3] * $p[1] + $m[5]],
                $chain,
            );
            $this->pens[] = $this->penNumbers[$block->pens[$k]] ??= \count($this->penNumbers);
        }
        foreach ($block->texts as $text) {
            if (\count($this->texts) < self::MOST_TEXTS) {
                $this->texts[] = $text->mapped($m);
            }
        }
        foreach ($depth < self::DEEPEST ? $block->inserts : [] as $insert) {
            $inner = $this->blocks[$insert->block] ?? new Block();
            foreach ($insert->places($inner) as $place) {
                if (++$this->inserts > self::MOST_INSERTS || $this->points > self::MOST) {
                    return;
                }
                $this->draw($inner, [
                    $m[0] * $place[0] + $m[2] * $place[1], $m[1] * $place[0] + $m[3] * $place[1],
                    $m[0] * $place[2] + $m[2] * $place[3], $m[1] * $place[2] + $m[3] * $place[3],
                    $m[0] * $place[4] + $m[2] * $place[5] + $m[4], $m[1] * $place[4] + $m[3] * $place[5] + $m[5],
                ], $depth + 1);
            }
        }
    }
}
