<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf\Internal;

/** A block put in a place, once or in rows and columns; a dimension is a block put where it was drawn. */
final readonly class Insert
{
    private const MOST_COPIES = 10_000;

    /** @param array{float, float, float} $at */
    private function __construct(
        public string $block,
        private array $at,
        private float $scaleX,
        private float $scaleY,
        private float $turnRad,
        private int $columns,
        private int $rows,
        private float $columnStep,
        private float $rowStep,
        private Plane $plane,
    ) {
    }

    public static function of(Entity $entity): self
    {
        if ('DIMENSION' === $entity->kind) {
            return new self($entity->text(2), [0.0, 0.0, 0.0], 1.0, 1.0, 0.0, 1, 1, 0.0, 0.0, new Plane(0.0, 0.0, 1.0));
        }
        $count = static fn (int $code): int => (int) max(1.0, min((float) self::MOST_COPIES, $entity->number($code, 1.0)));

        return new self(
            $entity->text(2),
            $entity->points(10)[0] ?? [0.0, 0.0, 0.0],
            $entity->number(41, 1.0),
            $entity->number(42, 1.0),
            deg2rad($entity->number(50)),
            $count(70), $count(71), $entity->number(44), $entity->number(45), $entity->plane(),
        );
    }

    /** @return iterable<array{float, float, float, float, float, float}> for each copy x' = m0 x + m2 y + m4, y' = m1 x + m3 y + m5 */
    public function places(Block $block): iterable
    {
        [$cos, $sin] = [cos($this->turnRad), sin($this->turnRad)];
        for ($row = 0, $copies = 0; $row < $this->rows; ++$row) {
            for ($column = 0; $column < $this->columns; ++$column) {
                if (++$copies > self::MOST_COPIES) {
                    return;
                }
                // Rows and columns run along the insert's own turned axes.
                $x = $column * $this->columnStep;
                $y = $row * $this->rowStep;
                $origin = $this->plane->place($this->at[0] + $cos * $x - $sin * $y, $this->at[1] + $sin * $x + $cos * $y, $this->at[2]);
                $zero = $this->plane->place(0.0, 0.0);
                $alongX = $this->plane->place($cos * $this->scaleX, $sin * $this->scaleX);
                $alongY = $this->plane->place(-$sin * $this->scaleY, $cos * $this->scaleY);
                [$a, $b] = [$alongX[0] - $zero[0], $alongX[1] - $zero[1]];
                [$c, $d] = [$alongY[0] - $zero[0], $alongY[1] - $zero[1]];
                yield [
                    $a,
                    $b,
                    $c,
                    $d,
                    $origin[0] - $a * $block->baseX - $c * $block->baseY,
                    $origin[1] - $b * $block->baseX - $d * $block->baseY,
                ];
            }
        }
    }
}
