<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/**
 * What is known of a picture's proportions before anything is stated about them. Until statements speak for or against them, they belong
 * to what ± tells.
 *
 * Standard deviations about what the ink shows, in the normalised coordinates of ShapeModel: half the logarithm of the page's width over
 * its height, the shear, by how much the picture recedes over half the page's diagonal, and the lens's bend.
 */
final readonly class Beforehand
{
    /** Copiers and feeding scanners stretch by a per cent or two: common practice, no source. */
    private const STRETCHED = 0.00625;
    /** and pull the sheet askew by less */
    private const SHEARED = 0.003;
    /** by how much a picture of which nothing is known may recede: it would be seen */
    private const RECEDES = 0.004;
    /** how much a scanner's or a corrected camera's picture still bends its corners: common practice, no source */
    private const BENT = [0.0005, 0.003];
    /** part of a slant by which lines drawn on paper misjudge it: by trial (bench untested) */
    private const MISJUDGED = 0.15;

    private function __construct(
        public float $stretch,
        public float $shear,
        public float $recedes,
        public float $lens,
        public float $leansU = 0.0,
        public float $leansV = 0.0,
        public float $askew = 0.0,
        public float $turn = 0.0,
        public ?Focal $focal = null,
    ) {
    }

    /** Drawn by a program, not copied: its proportions are its own. */
    public static function exact(): self
    {
        return new self(0.0, 0.0, 0.0, 0.0);
    }

    /**
     * Any picture: a scan, a copy of a copy, a photograph of a sheet, of which nobody has said which.
     *
     * @param Focal|null $focal what is known of its camera
     */
    public static function picture(?Focal $focal = null): self
    {
        return new self(self::STRETCHED, self::SHEARED, self::RECEDES, self::BENT[0], focal: $focal);
    }

    /**
     * A picture whose ink was looked at. Lines of one family that converge say by how much it recedes along them, and lines of two
     * families, which are drawn at a right angle, how far it is askew.
     *
     * @param float $u by how much it recedes along u by its ink, and $v along v
     * @param float $sigma standard deviation of both
     * @param float $askew radians by which its lines miss the right angle, and $sigmaAskew their standard deviation
     * @param float $turn of its lines across, radians counter-clockwise: it is stretched along them or across
     */
    public function leaning(float $u, float $v, float $sigma, float $askew, float $sigmaAskew, float $turn): self
    {
        $focal = $this->focal ?? Focal::usual();
        $slant = $focal->ratio * hypot($u, $v);

        // What leans is foreshortened, by 1 / cos t along its slant, which no flat model knows.
        return new self(
            hypot($this->stretch, $slant ** 2 / 2.0),
            min($this->shear, $sigmaAskew),
            min($this->recedes, hypot($sigma, self::MISJUDGED * hypot($u, $v))),
            $slant > 0.0 ? self::BENT[1] : $this->lens,
            $u,
            $v,
            $askew,
            $turn,
            $this->focal,
        );
    }

    /** Whether its ink shows that it was taken at a slant. */
    public function isSlanted(): bool
    {
        return 0.0 !== $this->leansU || 0.0 !== $this->leansV;
    }

    /** What the picture's own model does not leave open already. */
    public function besides(Model $model): self
    {
        return match ($model) {
            Model::Similar => $this,
            Model::Stretched => new self(
                0.0,
                $this->shear,
                $this->recedes,
                $this->lens,
                $this->leansU,
                $this->leansV,
                $this->askew,
                $this->turn,
            ),
            Model::Sheared => new self(0.0, 0.0, $this->recedes, $this->lens, $this->leansU, $this->leansV),
            Model::Perspective => new self(0.0, 0.0, 0.0, self::BENT[1]),
        };
    }
}
