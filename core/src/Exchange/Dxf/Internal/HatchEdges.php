<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf\Internal;

/**
 * Edges of a hatch: paths of corners with bulges, or of lines and arcs one after the other. Its pattern is left out.
 *
 * @phpstan-import-type Vertex from Shapes
 */
final class HatchEdges
{
    private const LINE = 1;
    private const ARC = 2;

    private readonly Plane $plane;
    private readonly float $z;
    /** @var list<list<array{float, float}>> */
    private array $chains = [];
    /** @var list<Vertex> */
    private array $vertices = [];
    /** @var array<int, float> */
    private array $edge = [];
    private int $kind = 0;
    private bool $isClosed = true;

    public function __construct(private readonly Entity $hatch)
    {
        $this->plane = $hatch->plane();
        $this->z = ($hatch->points(10)[0] ?? [0.0, 0.0, 0.0])[2];
    }

    /** @return list<list<array{float, float}>> */
    public function chains(): array
    {
        $isInPath = false;
        $isPolyline = false;
        foreach ($this->hatch->groups as [$code, $value]) {
            if (92 === $code) {
                $this->end();
                [$isInPath, $isPolyline, $this->isClosed] = [true, 0 !== ((int) $value & 2), true];
            } elseif (97 === $code || 75 === $code) {
                // The sources of a path end it; the style begins the pattern.
                $this->end();
                $isInPath = false;
            } elseif ($isInPath && $isPolyline) {
                $this->corner($code, $value);
            } elseif ($isInPath && 72 === $code) {
                $this->end();
                $this->kind = (int) $value;
            } elseif ($isInPath) {
                $this->edge[$code] = (float) $value;
            }
        }
        $this->end();

        return $this->chains;
    }

    private function corner(int $code, string $value): void
    {
        $last = array_key_last($this->vertices);
        if (10 === $code) {
            $this->vertices[] = [(float) $value, 0.0, 0.0, 0.0];
        } elseif (20 === $code && null !== $last) {
            $this->vertices[$last][1] = (float) $value;
        } elseif (42 === $code && null !== $last) {
            $this->vertices[$last][3] = (float) $value;
        } elseif (73 === $code) {
            $this->isClosed = '0' !== $value;
        }
    }

    private function end(): void
    {
        $n = fn (int $code, float $otherwise = 0.0): float => $this->edge[$code] ?? $otherwise;
        if ([] !== $this->vertices) {
            $this->chains[] = Shapes::polyline($this->vertices, $this->isClosed, $this->plane, $this->z);
        } elseif (self::LINE === $this->kind) {
            $this->chains[] = [$this->plane->place($n(10), $n(20), $this->z), $this->plane->place($n(11), $n(21), $this->z)];
        } elseif (self::ARC === $this->kind) {
            // A clockwise arc tells its angles mirrored.
            $sign = 0.0 === $n(73, 1.0) ? -1.0 : 1.0;
            $ends = [$sign * deg2rad($n(50)), $sign * deg2rad($n(51, 360.0))];
            $this->chains[] = Shapes::arc([$n(10), $n(20), $this->z], $n(40), min($ends), max($ends), $this->plane);
        }
        [$this->vertices, $this->edge, $this->kind] = [[], [], 0];
    }
}
