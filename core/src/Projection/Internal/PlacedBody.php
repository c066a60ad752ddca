<?php

declare(strict_types=1);

namespace Plinth\Core\Projection\Internal;

use Plinth\Core\Bodies\Body;
use Plinth\Core\Projection\View;

/**
 * A body in the coordinates of a view, with how far it reaches there.
 *
 * @internal
 *
 * @phpstan-import-type Place from Facet
 */
final readonly class PlacedBody
{
    public float $u0;
    public float $u1;
    public float $v0;
    public float $v1;
    public float $w0;
    public float $w1;

    /**
     * @param non-empty-list<Place> $places of its vertices
     * @param list<non-empty-list<list<int>>> $faces by numbers of vertices
     * @param list<array{int, int}> $smooth edges between faces that stand for what is round
     */
    private function __construct(
        public int $number,
        public string $kind,
        public array $places,
        public array $faces,
        public array $smooth,
    ) {
        [$u, $v, $w] = [array_column($places, 0), array_column($places, 1), array_column($places, 2)];
        [$this->u0, $this->u1] = [min($u), max($u)];
        [$this->v0, $this->v1] = [min($v), max($v)];
        [$this->w0, $this->w1] = [min($w), max($w)];
    }

    /**
     * @param list<Body> $bodies
     *
     * @return list<self> without those of which nothing lies between a view's nearest cut and its depth
     */
    public static function all(array $bodies, View $view): array
    {
        $near = [] === $view->steps ? -\INF : min(array_column($view->steps, 2));
        $far = [] === $view->steps ? $view->depth : max(array_column($view->steps, 2)) + $view->depth;
        $placed = [];
        foreach ($bodies as $number => $body) {
            $mesh = $body->mesh();
            $places = [];
            foreach ($mesh->vertices as $vertex) {
                $places[] = $view->place($vertex);
            }
            if ([] !== $places) {
                $one = new self($number, $body->kind->value, $places, $mesh->faces, $mesh->smooth);
                if ($one->w1 >= $near && $one->w0 <= $far) {
                    $placed[] = $one;
                }
            }
        }

        return $placed;
    }
}
