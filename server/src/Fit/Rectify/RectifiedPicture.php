<?php

declare(strict_types=1);

namespace Plinth\Server\Fit\Rectify;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/**
 * The straightened picture of a drawing whose fit has perspective. It follows from the page and the fit's shape alone: moved, turned
 * or scaled, the same picture serves. It belongs to no change and is made again whenever it is missing.
 */
#[ORM\Entity]
class RectifiedPicture
{
    /** How far a picture may lie beside the present fit and still serve, px. */
    private const SERVES_PX = 0.05;

    #[ORM\Column(length: 40)]
    public string $shape = '';

    #[ORM\Column]
    public int $width = 0;

    #[ORM\Column]
    public int $height = 0;

    /**
     * @var array{map?: list<float>, lens?: list<float>|null, left?: float, top?: float, mmPerPixel?: float} the fit it was made by and what
     *                                                                                                       it shows of the model then
     */
    #[ORM\Column]
    public array $made = [];

    public function __construct(
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        public Uuid $project,
        /** that of its drawing */
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        public Uuid $id,
    ) {
    }

    /** What of a fit and a cut decides how a picture is straightened: how it recedes, and its lens. */
    public static function shapeOf(Drawing $drawing, DrawingFit $fit): string
    {
        $box = $drawing->box();
        $map = $fit->pixelToMm();
        $middle = $map->depthAt($box->centre());
        $size = hypot($box->width, $box->height);
        // Over the drawing a difference of so many thousandths in depth moves its corners by an eighth of that part of its size.
        $step = 8.0 * self::SERVES_PX / $size;
        $m = $map->matrix();
        $parts = [$m[6] * $size / $middle, $m[7] * $size / $middle, ($map->lens->k ?? 0.0) * $size ** 2];

        return sha1(json_encode([
            $drawing->page()->toRfc4122(), $box->left, $box->top, $box->width, $box->height, array_map(
                static fn (float $part): float => round($part / $step),
                $parts,
            ),
            round($map->lens->centre->x ?? 0.0), round($map->lens->centre->y ?? 0.0),
        ], \JSON_THROW_ON_ERROR));
    }

    /**
     * Its own pixels → mm under the present fit: affine, for the picture was made by one of the same shape.
     *
     * @return array{float, float, float, float, float, float} row by row
     */
    public function pixelToMm(PixelToMm $fit): array
    {
        $map = $this->made['map'] ?? [];
        $lens = $this->made['lens'] ?? null;
        if (9 !== \count($map)) {
            throw new \LogicException('A picture that is ready knows its fit.');
        }
        $madeBy = DrawingFit::mapOf([
            'm00' => $map[0], 'm01' => $map[1], 'm02' => $map[2], 'm10' => $map[3], 'm11' => $map[4], 'm12' => $map[5], 'm20' => $map[6], 'm21' => $map[7], 'm22' => $map[8],
            'lensK' => $lens[0] ?? null, 'lensX' => $lens[1] ?? null, 'lensY' => $lens[2] ?? null,
        ]);
        $s = $this->made['mmPerPixel'] ?? 1.0;
        $at = fn (float $x, float $y): array => $fit->toMm(
            $madeBy->toPixel(new Point(($this->made['left'] ?? 0.0) + $s * $x, ($this->made['top'] ?? 0.0) - $s * $y)),
        )->toArray();
        // By three points well inside it.
        [$w, $h] = [$this->width, $this->height];
        [$p, $q, $r] = [$at(0.25 * $w, 0.25 * $h), $at(0.75 * $w, 0.25 * $h), $at(0.25 * $w, 0.75 * $h)];
        [$a, $b, $d, $e] = [
            ($q[0] - $p[0]) / (0.5 * $w),
            ($r[0] - $p[0]) / (0.5 * $h),
            ($q[1] - $p[1]) / (0.5 * $w),
            ($r[1] - $p[1]) / (0.5 * $h),
        ];

        return [$a, $b, $p[0] - 0.25 * ($a * $w + $b * $h), $d, $e, $p[1] - 0.25 * ($d * $w + $e * $h)];
    }
}
