@echo off
title Metronix
"%~dp0metronix.exe" serve --open --backups "%LOCALAPPDATA%\Metronix\backups" %*
if errorlevel 1 pause
