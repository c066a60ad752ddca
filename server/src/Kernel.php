<?php

declare(strict_types=1);

namespace Plinth\Server;

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\HttpKernel\Kernel as BaseKernel;

final class Kernel extends BaseKernel
{
    use MicroKernelTrait;

    public function boot(): void
    {
        // Doubles go to the database as text: with PHP's default of 14 digits they would not come back the same.
        ini_set('precision', '-1');
        parent::boot();
    }

    public function getProjectDir(): string
    {
        return \dirname(__DIR__, 2);
    }

    public function getCacheDir(): string
    {
        return $this->varDir().'/cache/'.$this->environment;
    }

    public function getLogDir(): string
    {
        return $this->varDir().'/log';
    }

    private function varDir(): string
    {
        $dir = $_SERVER['PLINTH_VAR'] ?? null;

        return \is_string($dir) && '' !== $dir ? $dir : $this->getProjectDir().'/var';
    }

    private function getConfigDir(): string
    {
        return $this->getProjectDir().'/server/config';
    }
}
