<?php

declare(strict_types=1);

namespace Plinth\Core\Projection;

use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\Mesh;
use Plinth\Core\Projection\Internal\Merged;

/**
 * What a side or a section shows, kept with what it was drawn from, so that after an edit only what that touches is drawn again.
 *
 * Whatever lies at a place of a view follows from the bodies alone that reach over that place. Where bodies have come, gone or changed,
 * the view is therefore drawn anew within a box round them, from all that reaches into it, and stays as it was outside.
 *
 * @phpstan-type Box array{float, float, float, float}
 */
final readonly class KeptView
{
    /** How far beyond what has changed it is drawn again, mm. */
    private const MARGIN_MM = 1.0;
    /** Where more of the view than this has changed, all of it is drawn again. */
    private const MOST = 0.6;

    /**
     * @param array<string, Box> $bodies where each of them lies in the view, by what it is
     * @param int $redone how many were drawn for it
     */
    private function __construct(public DrawnView $drawn, private array $bodies, public int $redone)
    {
    }

    /** @param list<Body> $bodies */
    public static function of(array $bodies, View $view): self
    {
        return new self(Projection::of($bodies, $view), array_column(self::looked($bodies, $view), 1, 0), \count($bodies));
    }

    /**
     * The same as drawing all of it.
     *
     * @param list<Body> $bodies as they stand now
     * @param View $view the same one
     */
    public function again(array $bodies, View $view): self
    {
        $looked = self::looked($bodies, $view);
        $now = array_column($looked, 1, 0);
        $changed = [...array_values(array_diff_key($now, $this->bodies)), ...array_values(array_diff_key($this->bodies, $now))];
        if ([] === $changed) {
            return new self($this->drawn, $now, 0);
        }
        $box = self::round($changed, self::MARGIN_MM);
        if (self::area($box) > self::MOST * self::area(self::round([...$now, ...$this->bodies], 0.0))) {
            return new self(Projection::of($bodies, $view), $now, \count($bodies));
        }
        $ids = [];
        foreach ($looked as $number => [, [$u0, $v0, $u1, $v1]]) {
            if ($u1 >= $box[0] && $u0 <= $box[2] && $v1 >= $box[1] && $v0 <= $box[3]) {
                $ids[self::named($bodies[$number])] = true;
            }
        }
        // What reaches into it, each with all others that were made from the same.
        $reaching = array_values(array_filter($bodies, static fn (Body $b): bool => isset($ids[self::named($b)])));
        $new = Projection::of($reaching, $view);
        $stays = array_filter($this->drawn->faces, static fn (CutFace $f): bool => !isset($ids["$f->storey $f->body"]));
        // What is cut of a body follows from it alone; of one that is gone nothing is left.
        $there = array_fill_keys(array_map(self::named(...), $bodies), true);
        $faces = [...array_filter($stays, static fn (CutFace $f): bool => isset($there["$f->storey $f->body"])), ...$new->faces];

        return new self(new DrawnView(
            self::joined([...$this->drawn->outside($box), ...$new->within($box)]),
            $faces,
        ), $now, \count($reaching));
    }

    /**
     * @param list<Body> $bodies
     *
     * @return array<int, array{string, Box}> what each body is, by its surface and where it stands, and no less than it reaches over
     */
    private static function looked(array $bodies, View $view): array
    {
        /** @var \WeakMap<Mesh, array{string, array{float, float, float, float, float, float}}> $forms many bodies share theirs */
        $forms = new \WeakMap();
        $looked = [];
        foreach ($bodies as $number => $body) {
            [$print, [$x0, $y0, $z0, $x1, $y1, $z1]] = $forms[$body->form] ??= self::form($body->form);
            $at = $body->placement;
            $box = [\INF, \INF, -\INF, -\INF];
            foreach ([[$x0, $y0, $z0], [$x1, $y0, $z1], [$x1, $y1, $z0], [$x0, $y1, $z1]] as $corner) {
                [$u, $v] = $view->place(null === $at ? $corner : $at->of($corner));
                $box = [min($box[0], $u), min($box[1], $v), max($box[2], $u), max($box[3], $v)];
            }
            $stands = null === $at ? '' : pack('d*', $at->x, $at->y, $at->z, $at->cos, $at->sin);
            $looked[$number] = ["{$body->kind->value} $body->storey $body->id $print$stands", $box];
        }

        return $looked;
    }

    /** @return array{string, array{float, float, float, float, float, float}} its surface in short, and how far it reaches */
    private static function form(Mesh $form): array
    {
        [$x, $y, $z] = [array_column($form->vertices, 0), array_column($form->vertices, 1), array_column($form->vertices, 2)];
        if ([] === $x || [] === $y || [] === $z) {
            return ['', [0.0, 0.0, 0.0, 0.0, 0.0, 0.0]];
        }
        $joined = json_encode([$form->faces, $form->smooth], \JSON_THROW_ON_ERROR);
        $print = hash('xxh128', pack('d*', ...$x, ...$y, ...$z).$joined, true);

        return [$print, [min($x), min($y), min($z), max($x), max($y), max($z)]];
    }

    private static function named(Body $body): string
    {
        return "$body->storey $body->id";
    }

    /**
     * Lines that were cut at the box's edge go on in each other again.
     *
     * @param list<ViewLine> $lines
     *
     * @return list<ViewLine>
     */
    private static function joined(array $lines): array
    {
        $numbers = [];
        $of = [];
        $pieces = [];
        foreach ($lines as $line) {
            $number = $numbers["{$line->kind->value} $line->storey $line->body"] ??= \count($of);
            $of[$number] ??= $line;
            $pieces[$line->role->value][] = [...$line->from, ...$line->to, $number];
        }
        $joined = [];
        foreach (LineRole::cases() as $role) {
            foreach (Merged::of($pieces[$role->value] ?? []) as [$u1, $v1, $u2, $v2, $number]) {
                $joined[] = new ViewLine([$u1, $v1], [$u2, $v2], $role, $of[$number]->kind, $of[$number]->body, $of[$number]->storey);
            }
        }

        return $joined;
    }

    /**
     * @param array<Box> $boxes at least one
     *
     * @return Box
     */
    private static function round(array $boxes, float $margin): array
    {
        $all = [\INF, \INF, -\INF, -\INF];
        foreach ($boxes as [$u0, $v0, $u1, $v1]) {
            $all = [min($all[0], $u0 - $margin), min($all[1], $v0 - $margin), max($all[2], $u1 + $margin), max($all[3], $v1 + $margin)];
        }

        return $all;
    }

    /** @param Box $box */
    private static function area(array $box): float
    {
        return ($box[2] - $box[0]) * ($box[3] - $box[1]);
    }
}
