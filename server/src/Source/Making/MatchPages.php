<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\JobKind;
use Plinth\Server\Job\Lane;

/**
 * Finds how a newer page lies on the page it replaces, starting, where there are any, from points picked on both: `pairs` of old x, y, new
 * x, y, px.
 */
final readonly class MatchPages implements JobKind
{
    public function __construct(private RegisterPage $register)
    {
    }

    public static function name(): string
    {
        return 'match-pages';
    }

    public static function lane(): Lane
    {
        return Lane::Quick;
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $pairs = array_map(static function (JsonValue $pair): array {
            [$ox, $oy, $nx, $ny] = array_map(static fn (JsonValue $v): float => $v->number(), $pair->items());

            return [new PixelPoint($ox, $oy), new PixelPoint($nx, $ny)];
        }, JsonValue::of($job->more['pairs'] ?? [], 'pairs')->items());
        $this->register->run($job->about, $pairs, $attempt);
    }
}
