<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * How likely a line is a wall by its evidence: a net of one hidden layer beside a weighed sum, learnt by bench/learn.php.
 *
 * @internal
 *
 * @phpstan-type Weights array{first: list<list<float>>, firstBias: list<float>, second: list<float>, linear: list<float>, bias: float}
 */
final readonly class LineNet
{
    /** beyond it a logistic function says all there is to say */
    private const FAR = 30.0;

    /** @param Weights $weights first: by hidden unit, then by value */
    public function __construct(private array $weights)
    {
    }

    /** @return list<self> one for each round of judging */
    public static function shipped(): array
    {
        static $nets = null;
        if (!\is_array($nets)) {
            /** @var list<Weights> $read */
            $read = json_decode((string) file_get_contents(__DIR__.'/line-nets.json'), true, flags: \JSON_THROW_ON_ERROR);
            $nets = array_map(static fn (array $weights): self => new self($weights), $read);
        }

        /** @var list<self> $nets */
        return $nets;
    }

    /**
     * @param list<float> $values in the order in which they were learnt
     *
     * @return float 0 to 1
     */
    public function of(array $values): float
    {
        $sum = $this->weights['bias'];
        foreach ($this->weights['linear'] as $k => $weight) {
            $sum += $weight * $values[$k];
        }
        foreach ($this->weights['first'] as $unit => $weights) {
            $in = $this->weights['firstBias'][$unit];
            foreach ($weights as $k => $weight) {
                $in += $weight * $values[$k];
            }
            $sum += $this->weights['second'][$unit] * tanh($in);
        }

        return 1.0 / (1.0 + exp(-max(-self::FAR, min(self::FAR, $sum))));
    }
}
