<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\Lens;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Source\Drawing;

/** The mapping of a drawing in force; it has the drawing's own id. A guess until something says the size. */
#[Kind('fit', isWritten: false, isRemoved: false)]
#[ORM\Entity]
#[ORM\Table(name: 'fit')]
class DrawingFit extends ProjectRow
{
    #[ORM\Column(length: 12)]
    private string $model = 'similar';

    #[ORM\Column]
    private bool $isGuess = true;

    /** what the scale rests on */
    #[ORM\Column(length: 12)]
    private FitBasis $basis = FitBasis::Paper;

    #[ORM\Column]
    private float $m00 = 1.0;

    #[ORM\Column]
    private float $m01 = 0.0;

    #[ORM\Column]
    private float $m02 = 0.0;

    #[ORM\Column]
    private float $m10 = 0.0;

    #[ORM\Column]
    private float $m11 = -1.0;

    #[ORM\Column]
    private float $m12 = 0.0;

    #[ORM\Column]
    private float $m20 = 0.0;

    #[ORM\Column]
    private float $m21 = 0.0;

    #[ORM\Column]
    private float $m22 = 1.0;

    /** its lens, per square pixel, and the lens's centre on the page; null where it has none */
    #[ORM\Column(nullable: true)]
    private ?float $lensK = null;

    #[ORM\Column(nullable: true)]
    private ?float $lensX = null;

    #[ORM\Column(nullable: true)]
    private ?float $lensY = null;

    /** ± of 10 m by the statements in force, null while nothing says the size */
    #[ORM\Column(nullable: true)]
    private ?float $plusMinusMmPer10m = null;

    public static function refers(): array
    {
        return [...parent::refers(), (new Refers(Drawing::class, WhenGone::GoesAlong))->of('id')];
    }

    public function values(): array
    {
        return [
            'model' => $this->model, 'isGuess' => $this->isGuess, 'basis' => $this->basis->value,
            'm00' => $this->m00, 'm01' => $this->m01, 'm02' => $this->m02,
            'm10' => $this->m10, 'm11' => $this->m11, 'm12' => $this->m12,
            'm20' => $this->m20, 'm21' => $this->m21, 'm22' => $this->m22,
            'lensK' => $this->lensK, 'lensX' => $this->lensX, 'lensY' => $this->lensY,
            'plusMinusMmPer10m' => $this->plusMinusMmPer10m,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->model = $values->name('model', 12);
        $this->isGuess = $values->flag('isGuess');
        $this->basis = $values->choiceOr('basis', $this->isGuess ? FitBasis::Paper : FitBasis::Lengths);
        [$this->m00, $this->m01, $this->m02] = [$values->number('m00'), $values->number('m01'), $values->number('m02')];
        [$this->m10, $this->m11, $this->m12] = [$values->number('m10'), $values->number('m11'), $values->number('m12')];
        [$this->m20, $this->m21, $this->m22] = [$values->number('m20'), $values->number('m21'), $values->number('m22')];
        [$this->lensK, $this->lensX, $this->lensY] = [
            $values->optionalNumber('lensK'),
            $values->optionalNumber('lensX'),
            $values->optionalNumber('lensY'),
        ];
        $this->plusMinusMmPer10m = $values->optionalNumber('plusMinusMmPer10m');
    }

    /**
     * @return array<string, scalar|null> values for a mapping
     */
    public static function valuesOf(PixelToMm $map, FitBasis $basis, ?float $plusMinusMmPer10m = null, string $model = 'similar'): array
    {
        $m = $map->matrix();

        return [
            'model' => $model, 'isGuess' => FitBasis::Lengths !== $basis, 'basis' => $basis->value,
            'm00' => $m[0], 'm01' => $m[1], 'm02' => $m[2], 'm10' => $m[3], 'm11' => $m[4], 'm12' => $m[5], 'm20' => $m[6], 'm21' => $m[7], 'm22' => $m[8],
            'lensK' => $map->lens?->k, 'lensX' => $map->lens?->centre->x, 'lensY' => $map->lens?->centre->y,
            'plusMinusMmPer10m' => $plusMinusMmPer10m,
        ];
    }

    public function plusMinusMmPer10m(): ?float
    {
        return $this->plusMinusMmPer10m;
    }

    public function basis(): FitBasis
    {
        return $this->basis;
    }

    public function isGuess(): bool
    {
        return $this->isGuess;
    }

    /** @param array<string, scalar|null> $values of such a row */
    public static function mapOf(array $values): PixelToMm
    {
        $m = static fn (string $key): float => (float) ($values[$key] ?? 0.0);

        return PixelToMm::ofMatrix(
            [$m('m00'), $m('m01'), $m('m02'), $m('m10'), $m('m11'), $m('m12'), $m('m20'), $m('m21'), $m('m22')],
            isset($values['lensK']) ? new Lens($m('lensK'), new PixelPoint($m('lensX'), $m('lensY'))) : null,
        );
    }

    /** Whether its picture has to be straightened before it can be drawn over. */
    public function isSlanted(): bool
    {
        return null !== $this->lensK || 0.0 !== $this->m20 || 0.0 !== $this->m21;
    }

    public function pixelToMm(): PixelToMm
    {
        return self::mapOf($this->values());
    }
}
